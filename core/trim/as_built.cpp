#include "core/trim/as_built.h"

#include "core/study/answers.h"
#include "core/trim/next_step.h"

#include <algorithm>
#include <cmath>
#include <set>

namespace vetchling {
namespace {

constexpr double handReach = 0.012; // of a tuned length, that a hand near its end adds

bool isCoil(const shapes::ParameterSpec& spec) { return spec.quantity == units::Quantity::Inductance; }

double normal(std::mt19937& random, double sigma) { return std::normal_distribution<double>(0.0, sigma)(random); }

/// What was cut from a tape, and so may be too long.
std::set<std::string> cutLengths(const shapes::AntennaShape& shape)
{
    const shapes::Family& family = shapes::familyOf(shape);
    std::set<std::string> keys;
    for (const shapes::TunedLength& t : family.tuned(shape))
        keys.insert(t.parameter);
    if (const auto levers = family.levers(shape); !levers.empty())
        keys.insert(levers.front().parameter);
    std::erase_if(keys, [&](const std::string& key) {
        const shapes::ParameterSpec* spec = family.spec(shape, key);
        return !spec || spec->quantity != units::Quantity::Length;
    });
    return keys;
}

} // namespace

HiddenFaults everydayFaults(std::mt19937& random)
{
    HiddenFaults faults;
    faults.higher = normal(random, 0.25);
    faults.permittivity = std::exp(normal(random, 0.25));
    faults.conductivity = std::exp(normal(random, 0.4));
    faults.longer = std::uniform_real_distribution<double>(0.005, 0.03)(random);
    return faults;
}

study::Subject subjectOf(const AsBuilt& built, const Handling& handling)
{
    study::Subject subject = built.plan;
    const shapes::Family& family = shapes::familyOf(subject.shape);
    subject.shape = raised(subject.shape, built.faults.higher + handling.higher);
    const double longer = built.faults.longer + (handling.handNear ? handReach : 0.0);
    for (const std::string& key : cutLengths(built.plan.shape))
        subject.shape = family.levered(subject.shape, key, (1.0 + longer) * family.value(built.plan.shape, key));
    for (const shapes::ParameterSpec& spec : family.specs(built.plan.shape))
        if (isCoil(spec) && built.faults.coils != 1.0)
            subject.shape.parameters[spec.key] = built.faults.coils * family.value(built.plan.shape, spec.key);
    for (const auto& [key, change] : handling.changes)
        subject.shape = family.levered(subject.shape, key, family.value(subject.shape, key) + change);
    subject.ground.relativePermittivity = std::max(1.5, subject.ground.relativePermittivity * built.faults.permittivity);
    subject.ground.conductivity *= built.faults.conductivity;
    return subject;
}

Result<AsBuilt> agreeingWithLog(study::Library& library, AsBuilt built, const Antenna& antenna, const Watch& watch)
{
    const auto& log = antenna.trim.measurements;
    const auto tasks = trimTasks(antenna);
    if (log.empty() || tasks.empty())
        return built;
    const Measurement& last = log.back();
    const TrimTask& task = tasks[taskOf(tasks, last)];
    Handling then;
    for (const auto& [key, taken] : takenByLog(antenna))
        then.changes[key] = -taken;
    if (const auto drawn = library.study(built.plan); drawn && last.height)
        then.higher = *last.height - heightOf(*drawn->built);
    const auto dipAt = [&](double longer) -> std::optional<double> {
        AsBuilt other = built;
        other.faults.longer = longer;
        other.plan.configuration = task.configuration;
        const auto facts = dipNear(library, subjectOf(other, then), task.target, watch);
        return facts ? std::optional(facts->dip) : std::nullopt;
    };
    constexpr double most = 0.12, step = 0.01; // part of the lengths
    double x0 = built.faults.longer, x1 = x0 + step;
    auto y0 = dipAt(x0), y1 = dipAt(x1);
    for (int i = 0; i < 4 && y0 && y1 && *y0 != *y1; ++i) {
        const double x = x1 + (last.dip - *y1) * (x1 - x0) / (*y1 - *y0);
        if (!(std::abs(x) < most))
            break;
        x0 = x1, y0 = y1;
        x1 = x, y1 = dipAt(x);
        if (y1 && std::abs(*y1 / last.dip - 1.0) < 2e-4) {
            built.faults.longer = x1;
            break;
        }
    }
    return unlessStopped(watch, std::move(built));
}

Result<std::vector<Complex>> impedancesOf(study::Library& library, const AsBuilt& built, const Handling& handling,
                                          const std::vector<double>& frequencies, const Watch& watch)
{
    if (frequencies.size() < 2)
        return Fault{"", coreText("core", "a sweep has two points or more")};
    study::Question question;
    question.subject = subjectOf(built, handling);
    WantedBand own;
    own.band = {"own", 0.99 * frequencies.front(), 1.01 * frequencies.back()};
    own.wish = Wish::Must;
    own.id = "own";
    question.bands = {own};
    question.subject.shape.designFrequency = 0.5 * (frequencies.front() + frequencies.back());
    const auto curve = study::curveOf(library, question, watch);
    if (!curve)
        return curve.faults();
    std::vector<Complex> out;
    for (double f : frequencies)
        out.push_back((*curve)->atLine(f) + built.faults.joint);
    return unlessStopped(watch, std::move(out));
}

ErrorTerms errorTermsOf(const InstrumentFaults& faults, double frequency)
{
    const double k = 2.0 * pi * frequency / (0.66 * speedOfLight);
    const Complex j{0.0, 1.0};
    return {faults.mismatch * std::exp(-j * (0.7 + 0.4 * k)), 0.8 * faults.mismatch * std::exp(-j * (1.9 + 1.1 * k)),
            (0.97 + faults.drift) * std::exp(-2.0 * j * k * faults.lead)};
}

RawSweep rawSweepOf(const InstrumentFaults& faults, const std::vector<double>& frequencies, const std::vector<Complex>& reflections,
                    std::mt19937& random)
{
    RawSweep raw;
    raw.frequency = frequencies;
    for (std::size_t i = 0; i < frequencies.size(); ++i)
        raw.reflection.push_back(errorTermsOf(faults, frequencies[i]).raw(reflections[i]) +
                                 Complex(normal(random, faults.noise), normal(random, faults.noise)));
    return raw;
}

std::vector<double> sweptFrequencies(double from, double to, int points, double step)
{
    std::vector<double> out;
    for (int i = 0; i < points; ++i) {
        const double f = from + (to - from) * i / std::max(1, points - 1), on = step > 0.0 ? step * std::round(f / step) : f;
        if (out.empty() || on > out.back())
            out.push_back(on);
    }
    return out;
}

} // namespace vetchling
