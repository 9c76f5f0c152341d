#include "cli/kept_tables.h"

#include <cstdlib>

namespace vetchling::cli {

KeptTables::KeptTables(em::GroundTableCache& tables) : m_tables(tables)
{
    const char* folder = std::getenv("VETCHLING_TABLES");
    if (!folder || !*folder)
        return;
    m_store.emplace(folder);
    m_tables.setSource([this](em::GroundTable& table) { m_store->restore(table); });
}

KeptTables::~KeptTables()
{
    if (!m_store)
        return;
    m_store->save(m_tables);
    m_tables.setSource(nullptr);
}

} // namespace vetchling::cli
