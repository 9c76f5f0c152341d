#include "core/files/terrain_store.h"

#include "core/files/kept_bytes.h"

#include <fmt/format.h>

#include <array>
#include <filesystem>

namespace vetchling::files {
namespace {

constexpr std::array<char, 8> ofTerrain{'v', 'e', 't', 'c', 'h', 't', 'e', 'r'};
constexpr const char* extension = ".ground";

/// All that the fields depend on.
std::string headOf(const em::TerrainLine& line, const em::TerrainSurface& surface)
{
    std::string bytes;
    append(bytes, ofTerrain);
    append(bytes, em::terrainVersion);
    append(bytes, line.frequency);
    for (const std::size_t count : {line.profile.corners.size(), line.profile.soils.size(), line.heights.size(), surface.panels.size()})
        append(bytes, count);
    for (const ProfilePoint& p : line.profile.corners)
        append(bytes, p.x), append(bytes, p.z);
    for (const Ground& soil : line.profile.soils)
        append(bytes, soil.kind), append(bytes, soil.relativePermittivity), append(bytes, soil.conductivity),
            append(bytes, soil.pairFrequency);
    for (double h : line.heights)
        append(bytes, h);
    return bytes;
}

/// Calls a function with each column; false once it says so.
template <class Surface, class Function> bool eachColumn(Surface& surface, Function function)
{
    for (auto* fields : {&surface.grazing, &surface.steep})
        for (auto* source : {&fields->across, &fields->along, &fields->vertical})
            for (auto& column : *source)
                if (!function(column))
                    return false;
    return true;
}

} // namespace

TerrainStore::TerrainStore(std::string folder, std::size_t largest) : m_folder(std::move(folder)), m_largest(largest)
{
    std::error_code ignored;
    std::filesystem::create_directories(m_folder, ignored);
}

std::string TerrainStore::pathOf(const std::string& head) const
{
    return fmt::format("{}/{:016x}{}", m_folder, checksum(head.data(), head.size()), extension);
}

bool TerrainStore::restore(const em::TerrainLine& line, em::TerrainSurface& surface)
{
    const std::string head = headOf(line, surface);
    const std::optional<std::string> bytes = readKept(pathOf(head));
    if (!bytes || bytes->compare(0, head.size(), head) != 0)
        return false;
    em::TerrainSurface found = surface;
    for (auto* fields : {&found.grazing, &found.steep})
        for (auto* source : {&fields->across, &fields->along, &fields->vertical})
            source->assign(line.heights.size(), em::TerrainSurface::Fields::Column(surface.panels.size() * em::nodesPerPanel));
    const std::string rest = bytes->substr(head.size());
    Taker from(rest);
    if (!eachColumn(found, [&](auto& column) { return from.take(column.data(), column.size() * sizeof(column[0])); }) || !from.empty())
        return false;
    surface = std::move(found);
    return true;
}

void TerrainStore::keep(const em::TerrainLine& line, const em::TerrainSurface& surface)
{
    constexpr std::size_t looksEvery = 4u << 20; // bytes
    const std::string head = headOf(line, surface);
    std::string bytes = head;
    eachColumn(surface, [&](const auto& column) {
        bytes.append(reinterpret_cast<const char*>(column.data()), column.size() * sizeof(column[0]));
        return true;
    });
    const std::size_t size = bytes.size();
    if (!writeKept(pathOf(head), std::move(bytes)))
        return;
    if ((m_written += size) < std::min(looksEvery, m_largest))
        return;
    m_written = 0;
    trimFolder(m_folder, extension, m_largest);
}

} // namespace vetchling::files
