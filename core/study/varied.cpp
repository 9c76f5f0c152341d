#include "core/study/varied.h"

#include "core/shapes/height.h"
#include "core/study/answers.h"
#include "core/study/neighbours.h"

#include <algorithm>
#include <cmath>

namespace vetchling::study {
namespace {

constexpr double lowestHung = 1.0, highestHung = 200.0; // m
const char* const apexKey = "apex_height_m";

shapes::ParameterSpec heightSpec(const std::string& key, const std::string& label)
{
    return {key, label, shapes::hangsGroup, units::Quantity::Length, 10.0, lowestHung, highestHung, {}, {}};
}

/// The support that such a key names by its id, or by its name; null if none does.
const Support* supportOf(const Design& design, const std::string& vary)
{
    const std::string prefix = oneSupport;
    if (!vary.starts_with(prefix))
        return nullptr;
    const std::string name = vary.substr(prefix.size());
    for (const Support& s : design.site.supports)
        if (s.id == name)
            return &s;
    for (const Support& s : design.site.supports)
        if (s.name == name)
            return &s;
    return nullptr;
}

} // namespace

bool isHeight(const std::string& vary) { return vary == allSupports || vary == apexKey || vary.starts_with(oneSupport); }

std::optional<Varied> variedOf(const Design& design, const Antenna& antenna, const std::string& vary)
{
    if (vary == allSupports) {
        const double height = shapes::Ties(design.site, antenna.shape).height();
        const char* label = coreText("core", "Height of all supports");
        return height > 0.0 ? std::optional(Varied{heightSpec(vary, label), height, label}) : std::nullopt;
    }
    if (const Support* support = supportOf(design, vary)) {
        const Text label{coreText("core", "Height of %1"), support->name};
        return Varied{heightSpec(oneSupport + support->id, label.english()), support->height, label};
    }
    const shapes::Family& family = shapes::familyOf(antenna.shape);
    const shapes::ParameterSpec* spec = family.spec(antenna.shape, vary);
    if (!spec || !spec->choices.empty())
        return std::nullopt;
    return Varied{*spec, family.value(antenna.shape, vary), spec->label};
}

std::vector<std::string> heightsOf(const Design& design, const Antenna& antenna)
{
    const shapes::Ties ties(design.site, antenna.shape);
    if (!(ties.height() > 0.0) || ties.higher(1.0) == antenna.shape)
        return {};
    std::vector<std::string> all{allSupports};
    if (ties.supports().size() > 1)
        for (const Id& id : ties.supports())
            all.push_back(oneSupport + id);
    return all;
}

namespace {

shapes::AntennaShape tiedTo(const shapes::Ties& ties, const Support* one, const Antenna& antenna, const std::string& vary, double value)
{
    if (vary == allSupports)
        return ties.higher(value - ties.height());
    if (one)
        return ties.higher(one->id, value - one->height);
    if (vary == apexKey)
        return ties.withApexAt(value);
    return shapes::familyOf(antenna.shape).levered(antenna.shape, vary, value);
}

} // namespace

shapes::AntennaShape variedTo(const Design& design, const Antenna& antenna, const std::string& vary, double value)
{
    return tiedTo(shapes::Ties(design.site, antenna.shape), supportOf(design, vary), antenna, vary, value);
}

std::vector<Subject> subjectsVariedTo(const Design& design, const Antenna& antenna, const std::string& vary,
                                      const std::vector<double>& values)
{
    const shapes::Ties ties(design.site, antenna.shape);
    const Support* one = supportOf(design, vary);
    const std::vector<Id> holding = one ? std::vector{one->id} : ties.supports();
    const Subject asItIs = questionOf(design, antenna).subject;
    Design then = antenna.surroundings.metal && (one || vary == allSupports) ? design : Design(); // whose masts count
    std::vector<Subject> all;
    for (double value : values) {
        Subject subject = asItIs;
        subject.shape = tiedTo(ties, one, antenna, vary, value);
        if (!then.antennas.empty()) {
            Antenna hung = antenna;
            hung.shape = subject.shape;
            then.site.supports = design.site.supports;
            for (Support& s : then.site.supports)
                if (std::find(holding.begin(), holding.end(), s.id) != holding.end())
                    s.height = std::max(lowestHung, s.height + value - (one ? one->height : ties.height()));
            subject.neighbours = countedIn(then, hung);
        }
        all.push_back(std::move(subject));
    }
    return all;
}

bool turns(const Antenna& antenna)
{
    const shapes::Family& family = shapes::familyOf(antenna.shape);
    return family.carrier() == shapes::Carrier::Mast && family.spec(antenna.shape, turning) != nullptr;
}

bool standsFree(const Design& design, const Subject& subject)
{
    const auto built = shapes::buildOver(subject.shape, subject.ground, subject.configuration);
    if (!built)
        return false;
    const FitReport report = fitOnSite(design.site, built->model);
    using Kind = SiteWarning::Kind;
    return report.fits() && std::none_of(report.warnings.begin(), report.warnings.end(), [](const SiteWarning& w) {
               return w.kind == Kind::PowerLine || w.kind == Kind::Boundary || w.kind == Kind::Building || w.kind == Kind::Tie;
           });
}

std::pair<double, double> usualRange(const Design& design, const Antenna& antenna, const std::string& vary)
{
    double lowest = 3.0;                                                                       // m
    constexpr double below = 2.0 / 3.0, above = 1.5, highest = 60.0, waves = 0.56, sure = 1.3; // m; of a wavelength
    const std::optional<Varied> varied = variedOf(design, antenna, vary);
    if (!varied)
        return {0.0, 0.0};
    if (vary == turning && turns(antenna))
        return {0.0, 360.0};
    if (!isHeight(vary) || vary == apexKey)
        return {below * varied->present, above * varied->present};
    const shapes::Ties ties(design.site, antenna.shape);
    constexpr double overGround = 0.5; // m that the lowest end keeps
    if (vary == allSupports)
        lowest = std::max(lowest, ties.height() - ties.lowestHeld() + overGround);
    const double half = waves * speedOfLight / antenna.shape.designFrequency;
    return {std::min(lowest, below * varied->present), std::max(sure * varied->present, std::min(half, highest))};
}

} // namespace vetchling::study
