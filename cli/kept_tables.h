#pragma once
/// The soil's tables and the uneven ground of a command, kept for the next one in the folder that VETCHLING_TABLES names; without it
/// nothing is kept.

#include "core/files/table_store.h"

#include <optional>

namespace vetchling::cli {

class KeptTables {
public:
    /// @param tables outlive this
    explicit KeptTables(em::GroundTableCache& tables);
    ~KeptTables();
    KeptTables(const KeptTables&) = delete;
    KeptTables& operator=(const KeptTables&) = delete;

private:
    em::GroundTableCache& m_tables;
    std::optional<files::TableStore> m_store;
};

} // namespace vetchling::cli
