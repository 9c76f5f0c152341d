#include "core/workshop/workshop_data.h"

#include <algorithm>

namespace vetchling {
namespace {

template <class T> const T* chosen(const std::vector<T>& all, const std::string& id)
{
    const auto found = std::find_if(all.begin(), all.end(), [&](const T& t) { return t.id == id; });
    return found != all.end() ? &*found : all.empty() ? nullptr : &all.front();
}

} // namespace

WireStrength WorkshopData::strengthOf(const std::string& conductor) const
{
    for (const MetalFacts& m : metals)
        if (m.potential.id == conductor && m.strength)
            return *m.strength;
    return {};
}

TubeMaterial WorkshopData::tubeOf(const std::string& conductor) const
{
    const WireStrength metal = strengthOf(conductor);
    return {metal.density, metal.modulus};
}

std::vector<MetalPotential> WorkshopData::potentials() const
{
    std::vector<MetalPotential> all;
    for (const MetalFacts& m : metals)
        all.push_back(m.potential);
    return all;
}

const FerriteClass* WorkshopData::ferrite(const std::string& id) const { return chosen(ferrites, id); }
const FerriteRing* WorkshopData::ring(const std::string& id) const { return chosen(rings, id); }
const Mode* WorkshopData::mode(const std::string& id) const { return chosen(modes, id); }

} // namespace vetchling
