#include "core/study/compensation.h"

#include "core/study/configurations.h"
#include "core/tune/joint.h"

#include <algorithm>
#include <cmath>

namespace vetchling::study {
namespace {

constexpr const char *coil = "coil_H", *place = "coil_at_m", *length = "length_m", *capacitor = "capacitor_F";
constexpr double lengthReach = 0.06;              // either side
constexpr double strongestCoil = 250.0;           // ohm at the lowest wished band: more is a loading coil
constexpr double leastReactance = 40.0;           // ohm of the capacitor at the highest wished band: less shorts the line
constexpr double nearest = 0.01, farthest = 0.24; // place, in waves of the lowest wished band
constexpr double starts[][2] = {{30.0, 0.05}, {80.0, 0.1}, {150.0, 0.05}}; // ohm, waves

std::vector<const WantedBand*> wished(const Question& question)
{
    std::vector<const WantedBand*> all;
    for (const WantedBand& w : question.bands)
        if (w.wish != Wish::No)
            all.push_back(&w);
    return all;
}

void addSamples(std::vector<JointAim::At>& aims, double from, double to, double weight)
{
    constexpr int samples = 3;
    for (int i = 0; i < samples; ++i)
        aims.push_back({from + (to - from) * (i + 0.5) / samples, weight / samples, 0});
}

JointAim aimFor(const Question& question)
{
    JointAim aim;
    aim.kind = JointAim::Kind::LowestSwr;
    aim.reference = question.reference;
    for (const WantedBand* w : wished(question)) {
        double segments = 0.0;
        for (const Segment& s : w->segments)
            segments += weightOf(s.wish);
        if (segments == 0.0)
            addSamples(aim.at, w->band.from, w->band.to, weightOf(w->wish));
        for (const Segment& s : w->segments)
            if (s.wish != Wish::No)
                addSamples(aim.at, s.from, s.to, weightOf(w->wish) * weightOf(s.wish) / segments);
    }
    return aim;
}

double coilLoss(Library& library, const Subject& subject, double frequency, const Watch& watch)
{
    const auto studied = library.study(subject);
    if (!studied)
        return 0.0;
    const auto ledger = studied->study->ledger(frequency, watch);
    return ledger ? -10.0 * std::log10(std::max(1e-6, 1.0 - (*ledger)->loads)) : 0.0;
}

/// What became of the wished bands.
Result<Compensation> judged(Library& library, const Question& question, Compensation out, const Watch& watch)
{
    Question after = question;
    after.subject.shape = out.shape;
    const auto then = curveOf(library, question, watch, Reach::Near), now = curveOf(library, after, watch, Reach::Near);
    if (!then || !now)
        return then ? now.faults() : then.faults();
    for (const WantedBand* w : wished(question)) {
        const Coverage &a = *(*then)->band(w->id), &b = *(*now)->band(w->id);
        if (!a.solved() || !b.solved())
            continue;
        out.bands.push_back({w->id, a.lowestSwr, b.lowestSwr, usableShare(a), usableShare(b), a.wholeTo - a.wholeFrom,
                             b.wholeTo - b.wholeFrom, coilLoss(library, question.subject, w->band.centre(), watch),
                             coilLoss(library, after.subject, w->band.centre(), watch)});
        out.scoreBefore += weightOf(w->wish) * out.bands.back().shareBefore;
        out.scoreAfter += weightOf(w->wish) * out.bands.back().shareAfter;
    }
    return unlessStopped(watch, std::move(out));
}

} // namespace

bool canCompensate(const shapes::AntennaShape& shape)
{
    const shapes::Family& family = shapes::familyOf(shape);
    return family.spec(shape, coil) && family.spec(shape, place) && family.spec(shape, length);
}

Result<Compensation> compensate(Library& library, const Question& asked, const Watch& watch)
{
    const Watch quiet = watch.with({});
    Question question = asked;
    question.before.reset();
    const std::vector<const WantedBand*> bands = wished(question);
    if (!canCompensate(question.subject.shape))
        return Fault{"", {coreText("core", "%1 has no place for a compensating coil"), shapes::familyOf(question.subject.shape).title()}};
    if (bands.empty())
        return Fault{"", coreText("core", "no band is wanted yet; choose some first")};
    const double lowest = bands.front()->band.centre(), wave = wavelength(lowest);
    const double present = shapes::familyOf(question.subject.shape).value(question.subject.shape, length);
    const double most = strongestCoil / (2.0 * pi * lowest), end = std::min(farthest * wave, 0.5 * present);
    const double mostCapacitance = 1.0 / (2.0 * pi * bands.back()->band.centre() * leastReactance);
    std::vector<JointLever> levers{{coil, 0.0, most},
                                   {place, std::min(nearest * wave, 0.5 * end), end},
                                   {length, (1.0 - lengthReach) * present, (1.0 + lengthReach) * present}};
    if (shapes::familyOf(question.subject.shape).spec(question.subject.shape, capacitor))
        levers.push_back({capacitor, 0.0, mostCapacitance});
    JointOptions options;
    options.mostTries = 110;
    options.mostSolves = 4000;
    const JointAim aim = aimFor(question);
    Compensation out;
    double best = HUGE_VAL;
    Faults faults;
    for (std::size_t i = 0; i < std::size(starts); ++i) {
        shapes::AntennaShape start = question.subject.shape;
        start.parameters[coil] = starts[i][0] / (2.0 * pi * lowest);
        start.parameters[place] = std::min(starts[i][1] * wave, end);
        start.parameters[capacitor] = 0.1 * mostCapacitance;
        const auto tuned = tuneJointly(start, question.subject.ground, levers, aim, library.tables(), options, quiet);
        watch.report(double(i + 1) / double(std::size(starts) + 1));
        if (!tuned) {
            faults = tuned.faults();
            continue;
        }
        out.solves += tuned->solves;
        if (tuned->achieved < best) {
            best = tuned->achieved;
            for (std::size_t lever = 0; lever < levers.size(); ++lever)
                out.values[levers[lever].parameter] = tuned->values[lever];
        }
    }
    if (watch.stopped())
        return stoppedFault();
    if (out.values.empty())
        return faults;
    out.shape = question.subject.shape;
    for (const auto& [key, value] : out.values)
        out.shape.parameters[key] = value;
    return judged(library, question, std::move(out), quiet);
}

std::vector<Id> lowerBands(const Question& question)
{
    constexpr double below = 0.8; // of the design frequency
    const shapes::AntennaShape& shape = question.subject.shape;
    std::vector<Id> all;
    for (const WantedBand* w : wished(question))
        if (w->band.centre() < below * shape.designFrequency && shapes::familyOf(shape).withLowerBand(shape, w->band.centre()))
            all.push_back(w->id);
    return all;
}

Result<Compensation> addLowerBand(Library& library, const Question& asked, const Id& band, const Watch& watch)
{
    const Watch quiet = watch.with({});
    Question question = asked;
    question.before.reset();
    const shapes::AntennaShape& present = question.subject.shape;
    const auto wanted = std::find_if(question.bands.begin(), question.bands.end(), [&](const WantedBand& w) { return w.id == band; });
    const auto with =
        wanted == question.bands.end() ? std::nullopt : shapes::familyOf(present).withLowerBand(present, wanted->band.centre());
    if (!with)
        return Fault{"", {coreText("core", "%1 has no place for a coil and a tail"), shapes::familyOf(present).title()}};
    Compensation out;
    out.shape = *with;
    const shapes::Family& family = shapes::familyOf(*with);
    TuneOptions first;
    first.goal = shapes::TuneGoal::LowestSwr;
    first.reference = question.reference;
    if (const auto tuned = tuneAll(*with, question.subject.ground, library.tables(), first, quiet))
        for (const TunedValue& v : tuned->lengths)
            out.shape.parameters[v.length.parameter] = v.value;
    watch.report(0.3);
    std::vector<JointLever> levers;
    for (const shapes::Lever& lever : family.levers(out.shape))
        levers.push_back({lever.parameter, 0.0, 0.0});
    JointOptions options;
    options.mostTries = 150;
    options.mostSolves = 4000;
    const auto tuned = tuneJointly(out.shape, question.subject.ground, levers, aimFor(question), library.tables(), options, quiet);
    if (watch.stopped())
        return stoppedFault();
    if (!tuned)
        return tuned.faults();
    out.solves = tuned->solves;
    for (std::size_t i = 0; i < levers.size(); ++i)
        out.values[levers[i].parameter] = out.shape.parameters[levers[i].parameter] = tuned->values[i];
    return judged(library, question, std::move(out), quiet);
}

} // namespace vetchling::study
