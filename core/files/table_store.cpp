#include "core/files/table_store.h"

#include "core/files/json_reader.h"
#include "core/files/writer.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cstdint>
#include <cstring>
#include <filesystem>

namespace vetchling::files {
namespace {

namespace fs = std::filesystem;

constexpr std::array<char, 8> magic{'v', 'e', 't', 'c', 'h', 't', 'b', 'l'};

/// FNV-1a, 64 bits (Fowler, Noll & Vo 1991).
std::uint64_t checksum(const char* bytes, std::size_t size)
{
    std::uint64_t sum = 0xcbf29ce484222325u;
    for (std::size_t i = 0; i < size; ++i)
        sum = (sum ^ std::uint8_t(bytes[i])) * 0x100000001b3u;
    return sum;
}

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

template <class T> void append(std::string& bytes, const T& value) { bytes.append(reinterpret_cast<const char*>(&value), sizeof value); }

/// Takes values off the front; false once there are too few bytes.
class Taker {
public:
    explicit Taker(const std::string& bytes) : m_at(bytes.data()), m_left(bytes.size()) {}
    template <class T> bool take(T& value)
    {
        if (m_left < sizeof value)
            return false;
        std::memcpy(&value, m_at, sizeof value);
        m_at += sizeof value;
        m_left -= sizeof value;
        return true;
    }
    [[nodiscard]] bool empty() const { return m_left == 0; }

private:
    const char* m_at;
    std::size_t m_left;
};

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
    append(bytes, checksum(bytes.data(), bytes.size()));
    return bytes;
}

/// Empty if the bytes are not this table's, of this version, and whole.
std::vector<em::TableRow> unpacked(const std::string& bytes, const em::GroundTable& table)
{
    std::uint64_t sum = 0;
    if (bytes.size() < sizeof(Head) + sizeof sum)
        return {};
    std::memcpy(&sum, bytes.data() + bytes.size() - sizeof sum, sizeof sum);
    const std::string body = bytes.substr(0, bytes.size() - sizeof sum);
    Taker from(body);
    Head head{};
    if (sum != checksum(body.data(), body.size()) || !from.take(head) || !(head == headOf(table, std::size_t(head.rows))))
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
    std::error_code error;
    if (!fs::exists(path, error))
        return;
    const Result<std::string> bytes = readTextFile(path);
    const std::vector<em::TableRow> rows = bytes ? unpacked(*bytes, table) : std::vector<em::TableRow>();
    if (rows.empty())
        return;
    table.restore(rows);
    fs::last_write_time(path, fs::file_time_type::clock::now(), error); // used
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
        wrote = writeWhole(path, packed(*table, rows), Flush::WhenItSuits).empty() || wrote;
    }
    if (wrote)
        trim();
}

void TableStore::trim() const
{
    struct File {
        fs::path path;
        fs::file_time_type used;
        std::size_t size;
    };
    std::vector<File> files;
    std::error_code error;
    std::size_t all = 0;
    for (const auto& entry : fs::directory_iterator(m_folder, error))
        if (entry.path().extension() == ".table") {
            files.push_back({entry.path(), entry.last_write_time(error), std::size_t(entry.file_size(error))});
            all += files.back().size;
        }
    std::sort(files.begin(), files.end(), [](const File& a, const File& b) { return a.used < b.used; });
    for (const File& file : files) {
        if (all <= largest)
            return;
        if (fs::remove(file.path, error))
            all -= file.size;
    }
}

} // namespace vetchling::files
