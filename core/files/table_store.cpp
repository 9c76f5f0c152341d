#include "core/files/table_store.h"

#include "core/files/kept_bytes.h"

#include <fmt/format.h>

#include <array>
#include <cstdint>
#include <filesystem>

namespace vetchling::files {
namespace {

namespace fs = std::filesystem;

constexpr std::array<char, 8> magic{'v', 'e', 't', 'c', 'h', 't', 'b', 'l'};

struct Head {
    std::array<char, 8> magic;
    std::int32_t version, content, columns, rows;
    double permittivity, conductivity, frequency;
    friend bool operator==(const Head&, const Head&) = default;
};

Head headOf(const em::GroundTable& table, std::size_t rows)
{
    return {magic,
            em::tableVersion,
            std::int32_t(table.content()),
            std::int32_t(table.columnCount()),
            std::int32_t(rows),
            table.ground().relativePermittivity,
            table.ground().conductivity,
            table.frequency()};
}

std::size_t countOf(const std::vector<em::TableRow>& rows)
{
    std::size_t count = 0;
    for (const em::TableRow& row : rows)
        count += row.values.size();
    return count;
}

std::string packed(const em::GroundTable& table, const std::vector<em::TableRow>& rows)
{
    std::string bytes;
    append(bytes, headOf(table, rows.size()));
    for (const em::TableRow& row : rows) {
        append(bytes, std::int32_t(row.index));
        append(bytes, std::int32_t(row.from));
        append(bytes, std::int32_t(row.values.size()));
        for (const auto& value : row.values)
            append(bytes, value);
    }
    return bytes;
}

/// Empty if the bytes are not this table's and of this version.
std::vector<em::TableRow> unpacked(const std::string& bytes, const em::GroundTable& table)
{
    Taker from(bytes);
    Head head{};
    if (!from.take(head) || !(head == headOf(table, std::size_t(head.rows))))
        return {};
    std::vector<em::TableRow> rows;
    for (std::int32_t r = 0; r < head.rows; ++r) {
        std::int32_t index = 0, first = 0, count = 0;
        if (!from.take(index) || !from.take(first) || !from.take(count) || count < 0 || count > head.columns)
            return {};
        rows.push_back({index, first, {}});
        rows.back().values.resize(std::size_t(count));
        for (auto& value : rows.back().values)
            if (!from.take(value))
                return {};
    }
    return from.empty() ? rows : std::vector<em::TableRow>();
}

} // namespace

TableStore::TableStore(std::string folder) : m_folder(std::move(folder))
{
    std::error_code ignored;
    fs::create_directories(m_folder, ignored);
}

std::string TableStore::pathOf(const em::GroundTable& table) const
{
    const Head head = headOf(table, 0);
    return fmt::format("{}/{:016x}.table", m_folder, checksum(reinterpret_cast<const char*>(&head), sizeof head));
}

void TableStore::restore(em::GroundTable& table)
{
    const std::string path = pathOf(table);
    const std::optional<std::string> bytes = readKept(path);
    const std::vector<em::TableRow> rows = bytes ? unpacked(*bytes, table) : std::vector<em::TableRow>();
    if (rows.empty())
        return;
    table.restore(rows);
    const std::lock_guard lock(m_mutex);
    m_kept[path] = countOf(rows);
}

void TableStore::save(const em::GroundTableCache& tables, const Watch& watch)
{
    bool wrote = false;
    for (const auto& table : tables.tables()) {
        if (watch.stopped())
            return;
        const std::string path = pathOf(*table);
        const std::vector<em::TableRow> rows = table->rows();
        const std::size_t count = countOf(rows);
        {
            const std::lock_guard lock(m_mutex);
            if (count == 0 || m_kept[path] == count)
                continue;
            m_kept[path] = count;
        }
        wrote = writeKept(path, packed(*table, rows)) || wrote;
    }
    if (wrote)
        trimFolder(m_folder, ".table", largest);
}

} // namespace vetchling::files
