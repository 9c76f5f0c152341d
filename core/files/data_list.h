#pragma once
/// Reading the tables of the data folder. Only for .cpp files of core/files.

#include "core/files/json_reader.h"

#include <string>
#include <vector>

namespace vetchling::files {

/// Reads the list `key` of a data file and turns each item into a T.
template <class T, class ReadItem> Result<std::vector<T>> readList(const std::string& path, const char* key, ReadItem readItem)
{
    const Result<Json> json = readJsonFile(path);
    if (!json) {
        Faults faults = json.faults();
        faults.front().path = path + (faults.front().path.empty() || faults.front().path == path ? "" : " " + faults.front().path);
        return faults;
    }
    Faults faults;
    std::vector<T> out;
    for (const JsonNode& item : JsonNode(*json, "", faults).items(key))
        out.push_back(readItem(item));
    if (faults.empty())
        return out;
    for (Fault& fault : faults)
        fault.path = path + " " + fault.path;
    return faults;
}

} // namespace vetchling::files
