#include "core/files/chain_file.h"

#include "core/files/data_list.h"
#include "core/files/design_parts.h"

#include <algorithm>
#include <cmath>

namespace vetchling::files {
namespace {

constexpr std::array<const char*, 3> bases{"assumed", "computed", "measured"};
constexpr std::array<const char*, 5> againsts{"vertical", "dipole", "antenna", "pinned", "own"};
constexpr const char *impedanceKey = "impedance_ohm", *imaginaryKey = "impedance_imag_ohm";

/// A number, or one of the words of a choice.
void readValue(const JsonNode& node, const PartSpec& spec, ChainPart& part)
{
    const Json& value = node.json()[spec.key];
    if (spec.key == impedanceKey && value.is_array()) {
        const std::vector<double> pair = node.numbers(spec.key, 2);
        if (pair.size() == 2) {
            part.values[impedanceKey] = pair[0];
            if (pair[1] != 0.0)
                part.values[imaginaryKey] = pair[1];
        }
    } else if (!spec.choices.empty() && value.is_string()) {
        const auto word = std::find(spec.choices.begin(), spec.choices.end(), value.get<std::string>());
        if (word == spec.choices.end())
            node.faultAt(spec.key, "'" + value.get<std::string>() + "' is not known here; see docs/file-format.md");
        part.values[spec.key] = double(word - spec.choices.begin());
    } else {
        part.values[spec.key] = node.number(spec.key);
    }
}

void readLossTable(const JsonNode& node, ChainPart& part)
{
    if (node.has("loss_table"))
        for (const JsonNode& row : node.items("loss_table")) {
            const std::vector<double> pair = row.ownNumbers(2);
            if (pair.size() == 2)
                part.lossTable.emplace_back(pair[0], pair[1]);
        }
}

ChainPart readPart(const JsonNode& node, bool known)
{
    ChainPart part;
    part.id = node.text("id", "", true);
    part.kind = node.text("kind");
    part.type = node.text("type", "", true);
    part.basis = Basis(wordOf(node, "basis", bases));
    if (known && !part.kind.empty() && !findPartKind(part.kind))
        node.faultAt("kind", "'" + part.kind + "' is no part of a chain; docs/cli.md lists them");
    for (const PartSpec& spec : kindOf(part).specs())
        if (node.has(spec.key))
            readValue(node, spec, part);
    readLossTable(node, part);
    part.kept = node.rest();
    for (const Fault& fault : findPartFaults(part))
        node.faultAt(fault.path, fault.message);
    return part;
}

Json partJson(const ChainPart& part)
{
    Json out{{"id", part.id}, {"kind", part.kind}};
    if (!part.type.empty())
        out["type"] = part.type;
    out["basis"] = bases[std::size_t(part.basis)];
    const PartKind& kind = kindOf(part);
    for (const auto& [key, value] : part.values) {
        const PartSpec* spec = kind.spec(key);
        const auto word = std::size_t(std::lround(std::max(0.0, value)));
        if (spec && word < spec->choices.size())
            out[key] = spec->choices[word];
        else if (key == impedanceKey && part.values.contains(imaginaryKey))
            out[key] = {value, part.values.at(imaginaryKey)};
        else if (key != imaginaryKey)
            out[key] = value;
    }
    for (const auto& [frequency, loss] : part.lossTable)
        out["loss_table"].push_back({frequency, loss});
    return withKept(std::move(out), part.kept);
}

FeedChain readFeedChain(const JsonNode& node)
{
    FeedChain chain;
    chain.id = node.text("id", "", true);
    chain.name = node.text("name", "chain", true);
    if (const auto own = node.object("parameters", true))
        for (const auto& [key, unused] : own->json().items())
            chain.own[key] = own->number(key);
    for (const JsonNode& part : node.items("parts"))
        chain.parts.push_back(readPart(part, false));
    chain.kept = node.rest();
    return chain;
}

/// The choice of a chain that could not be read stays in the file with it.
void noteLostChain(const JsonNode& node, const FeedChains& feed)
{
    if (!node.json().contains("chains") || !node.json()["chains"].is_array() || node.json()["chains"].size() == feed.chains.size())
        return;
    if (!feed.used.empty() && std::none_of(feed.chains.begin(), feed.chains.end(), [&](const FeedChain& c) { return c.id == feed.used; }))
        node.standsIn("used", "is a chain that could not be read; another one is in use");
}

Json complexJson(Complex z) { return {z.real(), z.imag()}; }

Json elementJson(const Reactance& r) { return {{"kind", r.inductor ? "L" : "C"}, {"value", r.value}}; }

Json solutionJson(const NetworkSolution& s)
{
    return {{"topology", s.shuntAtLoad ? "shunt_load" : "series_load"},
            {"shunt", elementJson(s.shunt)},
            {"series", elementJson(s.series)},
            {"loss_dB", s.loss}};
}

} // namespace

FeedChains readFeed(const JsonNode& node)
{
    FeedChains feed;
    feed.chains = node.parts("chains", readFeedChain);
    feed.used = node.text("used", "", true);
    noteLostChain(node, feed);
    feed.kept = node.rest();
    return feed;
}

Json feedJson(const FeedChains& feed)
{
    Json out{{"used", feed.used}, {"chains", Json::array()}};
    for (const FeedChain& chain : feed.chains) {
        Json c{{"id", chain.id}, {"name", chain.name}};
        for (const auto& [key, value] : chain.own)
            c["parameters"][key] = value;
        c["parts"] = Json::array();
        for (const ChainPart& part : chain.parts)
            c["parts"].push_back(partJson(part));
        out["chains"].push_back(withKept(std::move(c), chain.kept));
    }
    return withKept(std::move(out), feed.kept);
}

Against readAgainst(const JsonNode& node)
{
    return {Against::Kind(wordOf(node, "kind", againsts)), node.text("antenna", "", true), node.number("gain_dBi", 0.0, true)};
}

Json againstJson(const Against& against)
{
    Json out{{"kind", againsts[std::size_t(against.kind)]}};
    if (!against.antenna.empty())
        out["antenna"] = against.antenna;
    if (against.gain != 0.0)
        out["gain_dBi"] = against.gain;
    return out;
}

Result<ChainCase> parseChain(const std::string& text)
{
    const Result<Json> json = parseJson(text);
    if (!json)
        return json.faults();
    if (!json->is_object())
        return Fault{"", "a chain is one object in braces"};
    Faults faults;
    const JsonNode root(*json, "", faults);
    if (const std::string format = root.text("format"); !format.empty() && format != "vetchling-chain")
        root.faultAt("format", "is '" + format + "'; a chain says vetchling-chain");
    ChainCase out;
    out.frequency = root.number("frequency_Hz");
    if (root.has("frequency_Hz"))
        for (const Fault& fault : findFrequencyFaults(out.frequency, ""))
            root.faultAt("frequency_Hz", fault.message);
    const std::vector<double> load = root.numbers("load_ohm", 2);
    if (load.size() == 2)
        out.load = {load[0], load[1]};
    if (load.size() == 2 && !(load[0] > 0.0))
        root.faultAt("load_ohm", "needs a resistance above 0 ohm");
    for (const JsonNode& part : root.items("parts"))
        out.parts.push_back(readPart(part, true));
    if (!faults.empty())
        return faults;
    return out;
}

Result<ChainCase> readChain(const std::string& path)
{
    const Result<std::string> text = readTextFile(path);
    if (!text)
        return text.faults();
    return parseChain(*text);
}

std::string writeChainResult(const ChainCase& asked, const ChainState& state)
{
    Json out{{"format", "vetchling-chain-result"}, {"version", 1}, {"parts", Json::array()}};
    for (std::size_t i = 0; i < state.joints.size(); ++i) {
        const Joint& joint = state.joints[i];
        Json row{{"kind", asked.parts[i].kind},
                 {"impedance_ohm", complexJson(joint.impedance)},
                 {"swr_50", swr(joint.impedance)},
                 {"loss_dB", joint.loss}};
        if (asked.parts[i].kind == part::tuner) {
            row["solutions"] = Json::array();
            for (const NetworkSolution& s : joint.solutions)
                row["solutions"].push_back(solutionJson(s));
        }
        if (joint.refused)
            row["refused"] = joint.refused->english();
        out["parts"].push_back(std::move(row));
    }
    out["total_dB"] = state.totalLoss();
    out["efficiency"] = state.efficiency();
    return out.dump(1) + "\n";
}

Result<std::vector<LineType>> readLineTypes(const std::string& path)
{
    return readList<LineType>(path, "lines", [](const JsonNode& n) {
        LineType type{n.text("id"),
                      n.text("name"),
                      n.text("source", "", true),
                      n.flag("balanced", false),
                      n.number("impedance_ohm"),
                      n.number("velocity_factor"),
                      n.number("k1_dB_per_100m"),
                      n.number("k2_dB_per_100m"),
                      n.number("price_per_m", 0.0, true)};
        ChainPart part{"", part::line, {}, {}, {}, {}, {}};
        takeType(part, type);
        for (const Fault& fault : findPartFaults(part))
            n.faultAt(fault.path, fault.message);
        return type;
    });
}

} // namespace vetchling::files
