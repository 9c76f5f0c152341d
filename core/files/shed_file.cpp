#include "core/files/shed_file.h"

#include "core/files/design_parts.h"
#include "core/files/writer.h"

namespace vetchling::files {
namespace {

constexpr std::array<const char*, 5> kinds{"wire", "whip", "coil", "coax", "pole"};

StockItem readItem(const JsonNode& node)
{
    StockItem item{node.text("id", "", true),
                   StockKind(wordOf(node, "kind", kinds)),
                   node.text("name"),
                   node.count("count", 1, 0, 100000),
                   node.number("shortest_m", 0.0, true),
                   node.number("longest_m", 0.0, true),
                   node.number("inductance_H", 0.0, true),
                   node.number("price", 0.0, true),
                   {}};
    for (const char* key : {"shortest_m", "longest_m", "inductance_H", "price"})
        if (!(node.number(key, 0.0, true) >= 0.0))
            node.faultAt(key, "must be 0 or more");
    item.kept = node.rest();
    if (item.id.empty())
        item.id = newId();
    return item;
}

} // namespace

Result<Shed> parseShed(const std::string& text)
{
    const Result<Json> json = parseJson(text);
    if (!json)
        return json.faults();
    if (!json->is_object())
        return Fault{"", "a list of the shed is one object in braces"};
    Faults faults;
    const JsonNode root(*json, "", faults);
    if (root.text("format") != "vetchling-shed")
        root.faultAt("format", "must say vetchling-shed");
    (void)root.number("version");
    Shed shed;
    shed.currency = root.text("currency", "", true);
    for (const JsonNode& item : root.items("items"))
        shed.items.push_back(readItem(item));
    shed.kept = root.rest();
    if (!faults.empty())
        return faults;
    return shed;
}

Result<Shed> readShed(const std::string& path)
{
    const Result<std::string> text = readTextFile(path);
    if (!text)
        return text.faults();
    return parseShed(*text);
}

std::string writeShed(const Shed& shed)
{
    Json out{{"format", "vetchling-shed"}, {"version", 1}, {"currency", shed.currency}, {"items", Json::array()}};
    for (const StockItem& item : shed.items) {
        Json json{{"id", item.id}, {"kind", kinds[std::size_t(item.kind)]}, {"name", item.name}, {"count", item.count}};
        if (item.shortest > 0.0)
            json["shortest_m"] = item.shortest;
        if (item.longest > 0.0)
            json["longest_m"] = item.longest;
        if (item.inductance > 0.0)
            json["inductance_H"] = item.inductance;
        if (item.price > 0.0)
            json["price"] = item.price;
        out["items"].push_back(withKept(std::move(json), item.kept));
    }
    addKept(out, shed.kept);
    return out.dump(1, ' ', false, Json::error_handler_t::replace) + "\n";
}

Faults saveShed(const Shed& shed, const std::string& path) { return writeWhole(path, writeShed(shed)); }

} // namespace vetchling::files
