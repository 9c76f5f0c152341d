#include "core/design/file_damage.h"

namespace vetchling {
namespace {

bool isOfAnAntenna(const DamagedPart& part) { return part.steps.size() > 1 && part.steps.front().key == "antennas"; }

std::string keysOf(const DamagedPart& part)
{
    std::string keys;
    for (const FileStep& step : part.steps)
        if (!step.key.empty())
            (keys += keys.empty() ? "" : ".") += step.key;
    return keys;
}

} // namespace

Faults FileDamage::faults() const
{
    Faults out;
    for (const DamagedPart& part : parts)
        out.push_back(part.fault);
    out.insert(out.end(), remarks.begin(), remarks.end());
    if (cutShort)
        out.push_back(*cutShort);
    return out;
}

std::shared_ptr<const FileDamage> withoutDamageAt(const FileDamage& damage, const std::string& keys, const Id& antenna)
{
    auto out = std::make_shared<FileDamage>(damage);
    std::erase_if(out->parts, [&](const DamagedPart& part) {
        const std::string own = keysOf(part);
        const bool there = own == keys || own.compare(0, keys.size() + 1, keys + ".") == 0;
        return there && (antenna.empty() || (part.steps.size() > 1 && part.steps[1].id == antenna));
    });
    return out;
}

std::vector<const DamagedPart*> lostAntennas(const FileDamage& damage)
{
    std::vector<const DamagedPart*> out;
    for (const DamagedPart& part : damage.parts)
        if (part.steps.size() == 2 && isOfAnAntenna(part))
            out.push_back(&part);
    return out;
}

} // namespace vetchling
