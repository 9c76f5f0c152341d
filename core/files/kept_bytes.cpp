#include "core/files/kept_bytes.h"

#include "core/files/json_reader.h"
#include "core/files/writer.h"

#include <algorithm>
#include <filesystem>
#include <vector>

namespace vetchling::files {

namespace fs = std::filesystem;

std::uint64_t checksum(const char* bytes, std::size_t size)
{
    std::uint64_t sum = 0xcbf29ce484222325u;
    for (std::size_t i = 0; i < size; ++i)
        sum = (sum ^ std::uint8_t(bytes[i])) * 0x100000001b3u;
    return sum;
}

bool writeKept(const std::string& path, std::string bytes)
{
    append(bytes, checksum(bytes.data(), bytes.size()));
    return writeWhole(path, bytes, Flush::WhenItSuits).empty();
}

std::optional<std::string> readKept(const std::string& path)
{
    std::error_code error;
    if (!fs::exists(path, error))
        return std::nullopt;
    Result<std::string> read = readTextFile(path);
    std::uint64_t sum = 0;
    if (!read || read->size() < sizeof sum)
        return std::nullopt;
    std::string bytes = std::move(read).value();
    std::memcpy(&sum, bytes.data() + bytes.size() - sizeof sum, sizeof sum);
    bytes.resize(bytes.size() - sizeof sum);
    if (sum != checksum(bytes.data(), bytes.size()))
        return std::nullopt;
    fs::last_write_time(path, fs::file_time_type::clock::now(), error);
    return bytes;
}

void trimFolder(const std::string& folder, const std::string& extension, std::size_t largest)
{
    struct File {
        fs::path path;
        fs::file_time_type used;
        std::size_t size;
    };
    std::vector<File> files;
    std::error_code error;
    std::size_t all = 0;
    for (const auto& entry : fs::directory_iterator(folder, error))
        if (entry.path().extension() == extension) {
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
