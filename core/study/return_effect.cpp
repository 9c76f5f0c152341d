#include "core/study/return_effect.h"

#include "core/physics.h"

#include <algorithm>
#include <cmath>

namespace vetchling::study {
namespace {

constexpr const char *kind = "return_kind", *counterpoise = "counterpoise_m";

/// The same wire on the other return; nothing where there is no choice.
std::optional<shapes::AntennaShape> other(const shapes::AntennaShape& shape)
{
    const shapes::Family& family = shapes::familyOf(shape);
    if (!family.spec(shape, kind))
        return std::nullopt;
    shapes::AntennaShape next = shape;
    next.parameters[kind] = family.value(shape, kind) >= 0.5 ? 0.0 : 1.0;
    return next;
}

double shieldLength(const shapes::BuiltAntenna& built) { return built.shieldWire ? built.model.wires[*built.shieldWire].length() : 0.0; }

} // namespace

const ReturnEffect::Row* ReturnEffect::most() const
{
    const double worthTelling = 1.05, ofUse = 20.0; // SWR
    const auto ratio = [&](const Row& r) { return std::abs(std::log(std::min(r.here, ofUse) / std::min(r.other, ofUse))); };
    const auto found = std::max_element(rows.begin(), rows.end(), [&](const Row& a, const Row& b) { return ratio(a) < ratio(b); });
    return found == rows.end() || ratio(*found) < std::log(worthTelling) ? nullptr : &*found;
}

Result<std::optional<ReturnEffect>> returnEffect(Library& library, const std::vector<CurvePointer>& here, const Watch& watch)
{
    using None = std::optional<ReturnEffect>;
    if (here.empty())
        return None();
    Question question = here.front()->question;
    const auto shape = other(question.subject.shape);
    if (!shape)
        return None();
    ReturnEffect out;
    const shapes::Family& family = shapes::familyOf(*shape);
    out.shield = family.value(question.subject.shape, kind) >= 0.5;
    out.counterpoise = family.value(*shape, counterpoise); // 0: it needs none
    question.subject.shape = *shape;
    std::erase_if(question.bands, [](const WantedBand& w) { return w.wish == Wish::No; });
    if (question.bands.empty() || !shapes::buildOver(*shape, question.subject.ground))
        return None();
    const Result<std::vector<CurvePointer>> there = curvesOf(library, question, watch, Reach::Near);
    if (!there)
        return there.faults();
    out.coax = shieldLength(out.shield ? *here.front()->built : *there->front()->built);
    if (out.coax == 0.0)
        return None(); // nothing is drawn that could act
    const std::vector<BandChoice> now = bestByBand(here), then = bestByBand(*there);
    const auto& bands = here.front()->question.bands;
    for (std::size_t i = 0; i < question.bands.size() && i < then.size(); ++i)
        for (std::size_t k = 0; k < bands.size() && k < now.size(); ++k)
            if (bands[k].id == question.bands[i].id && now[k].coverage.solved() && then[i].coverage.solved())
                out.rows.push_back({bands[k].id, bands[k].band.name, now[k].coverage.lowestSwr, then[i].coverage.lowestSwr});
    return unlessStopped(watch, None(std::move(out)));
}

} // namespace vetchling::study
