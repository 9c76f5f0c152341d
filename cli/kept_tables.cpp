#include "cli/kept_tables.h"

#include "core/files/terrain_store.h"

#include <cstdlib>

namespace vetchling::cli {

KeptTables::KeptTables(em::GroundTableCache& tables) : m_tables(tables)
{
    const char* folder = std::getenv("VETCHLING_TABLES");
    if (!folder || !*folder)
        return;
    m_store.emplace(folder);
    m_tables.setSource([this](em::GroundTable& table) { m_store->restore(table); });
    em::TerrainHeights::keepWith(std::make_shared<files::TerrainStore>(folder));
}

KeptTables::~KeptTables()
{
    if (!m_store)
        return;
    m_store->save(m_tables);
    m_tables.setSource(nullptr);
    em::TerrainHeights::keepWith(nullptr);
}

} // namespace vetchling::cli
