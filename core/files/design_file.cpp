#include "core/files/design_file.h"

#include "core/files/damage.h"
#include "core/files/design_parts.h"
#include "core/files/lenient_json.h"
#include "core/files/writer.h"

#include <fmt/format.h>

#include <filesystem>

namespace vetchling::files {
namespace {

constexpr std::array<const char*, 3> wishes{"no", "nice", "must"};
constexpr std::array<const char*, 3> unitWords{"metric", "imperial", "decimal-feet"};

Tolerances readTolerances(const JsonNode& node)
{
    const Tolerances d;
    const auto length = [&](const char* key, double standard) {
        return node.goodNumber(
            key, standard, [](double x) { return x >= 0.0; }, "must be 0 or more");
    };
    const auto factor = [&](const char* key, double standard) {
        return node.goodNumber(
            key, standard, [](double x) { return x >= 1.0; }, "must be 1 or more");
    };
    Tolerances t{length("height_m", d.height),
                 length("cut_m", d.cut),
                 length("unequal_m", d.unequal),
                 length("jacket_m", d.jacket),
                 factor("soil_conductivity_factor", d.soilConductivity),
                 factor("soil_permittivity_factor", d.soilPermittivity),
                 {}};
    t.kept = node.rest();
    return t;
}

Json tolerancesJson(const Tolerances& t)
{
    return withKept({{"height_m", t.height},
                     {"cut_m", t.cut},
                     {"unequal_m", t.unequal},
                     {"jacket_m", t.jacket},
                     {"soil_conductivity_factor", t.soilConductivity},
                     {"soil_permittivity_factor", t.soilPermittivity}},
                    t.kept);
}

Segment readSegment(const JsonNode& node, const Band& band)
{
    const Segment segment{node.text("name"), node.number("from_Hz"), node.number("to_Hz"), Wish(wordOf(node, "wish", wishes))};
    if (!(segment.from >= band.from && segment.to > segment.from && segment.to <= band.to))
        node.fault("a segment must lie inside its band, its upper edge above its lower edge");
    return segment;
}

WantedBand readBand(const JsonNode& node)
{
    WantedBand wanted{{node.text("name"), node.number("from_Hz"), node.number("to_Hz")},
                      Wish(wordOf(node, "wish", wishes)),
                      node.text("id", "", true),
                      {},
                      {}};
    if (!(wanted.band.from > 0.0 && wanted.band.to > wanted.band.from && wanted.band.to <= 3e9))
        node.fault("the band's upper edge must be above its lower edge");
    wanted.segments = node.parts("segments", [&](const JsonNode& segment) { return readSegment(segment, wanted.band); });
    wanted.kept = node.rest();
    return wanted;
}

Operation readOperation(const JsonNode& node)
{
    Operation op;
    op.bandPlan = node.text("band_plan", op.bandPlan, true);
    op.bands = node.parts("bands", readBand);
    op.swrLimit = node.goodNumber(
        "swr_limit", op.swrLimit, [](double x) { return x > 1.0 && x <= 20.0; }, "must be above 1 and at most 20");
    op.lossLimit = node.goodNumber(
        "loss_limit_dB", op.lossLimit, [](double x) { return x > 0.0 && x <= 60.0; }, "must be above 0 and at most 60 dB");
    op.foldbackSwr = node.goodNumber(
        "foldback_swr", op.foldbackSwr, [](double x) { return x == 0.0 || (x > 1.0 && x <= 20.0); },
        "must be above 1 and at most 20, or 0");
    op.reference = node.goodNumber(
        "reference_ohm", op.reference, [](double x) { return x >= 1.0 && x <= 1e4; }, "must be from 1 to 10000 ohm");
    op.favourite = node.text("favourite", "", true);
    op.aimElevation = node.goodNumber(
        "aim_elevation_deg", op.aimElevation, [](double x) { return x > 0.0 && x <= 90.0; }, "must be above 0 and at most 90 degrees");
    op.aimBearing = node.optionalNumber("aim_bearing_deg");
    op.aimSector = node.goodNumber(
        "aim_sector_deg", 0.0, [](double x) { return x >= 0.0 && x <= 360.0; }, "must be from 0 to 360 degrees");
    op.against = node.partAt("against", readAgainst).value_or(op.against);
    op.power = node.goodNumber(
        "power_W", op.power, [](double x) { return x > 0.0 && x <= 1e5; }, "must be above 0 and at most 100 kW");
    op.tolerances = node.partAt("tolerances", readTolerances).value_or(op.tolerances);
    op.system = units::System(wordOf(node, "units", unitWords));
    op.kept = node.rest();
    return op;
}

Json operationJson(const Operation& op)
{
    Json out{{"band_plan", op.bandPlan},  {"bands", Json::array()},
             {"swr_limit", op.swrLimit},  {"reference_ohm", op.reference},
             {"favourite", op.favourite}, {"aim_elevation_deg", op.aimElevation},
             {"power_W", op.power},       {"units", unitWords[std::size_t(op.system)]}};
    if (op.lossLimit != Operation().lossLimit)
        out["loss_limit_dB"] = op.lossLimit;
    if (op.foldbackSwr != Operation().foldbackSwr)
        out["foldback_swr"] = op.foldbackSwr;
    if (op.aimBearing)
        out["aim_bearing_deg"] = *op.aimBearing;
    if (op.aimSector > 0.0)
        out["aim_sector_deg"] = op.aimSector;
    if (op.against != Against())
        out["against"] = againstJson(op.against);
    for (const WantedBand& w : op.bands) {
        Json band{
            {"id", w.id}, {"name", w.band.name}, {"from_Hz", w.band.from}, {"to_Hz", w.band.to}, {"wish", wishes[std::size_t(w.wish)]}};
        for (const Segment& s : w.segments)
            band["segments"].push_back({{"name", s.name}, {"from_Hz", s.from}, {"to_Hz", s.to}, {"wish", wishes[std::size_t(s.wish)]}});
        out["bands"].push_back(withKept(std::move(band), w.kept));
    }
    if (op.tolerances != Tolerances())
        out["tolerances"] = tolerancesJson(op.tolerances);
    addKept(out, op.kept);
    return out;
}

/// Whether it is a design, and one that this program can read; what is damaged of that is no reason against it.
void checkDesignHead(const JsonNode& root)
{
    const std::string format = root.text("format", "", true);
    if (format.empty() ? !root.has("antennas") && !root.has("site") : format != "vetchling-design")
        root.faultAt("format",
                     format.empty() ? "is missing; a design says vetchling-design" : "is '" + format + "'; a design says vetchling-design");
    const double version = root.goodNumber(
        "version", designVersion, [](double x) { return x >= 1.0; }, "counts from 1");
    if (version > designVersion)
        root.faultAt("version", fmt::format("is {}; this program reads up to {}, so a newer program is needed", version, designVersion));
}

Json plainJson(const Design& design)
{
    Json out{{"format", "vetchling-design"},
             {"version", designVersion},
             {"site", siteJson(design.site)},
             {"operation", operationJson(design.operation)},
             {"antennas", Json::array()}};
    for (const Antenna& a : design.antennas)
        out["antennas"].push_back(antennaJson(a));
    addKept(out, design.kept);
    return out;
}

Result<Design> parse(const std::string& text, const std::string& file)
{
    const Result<LenientJson> read = readLenient(text);
    if (!read)
        return read.faults();
    if (!read->json.is_object())
        return read->cutShort.value_or(Fault{"", "a design is one object in braces"});
    Faults faults;
    std::vector<Unread> unread;
    const JsonNode root(read->json, "", faults, &unread);
    checkDesignHead(root);
    if (read->cutShort && (!faults.empty() || (!root.has("site") && !root.has("antennas"))))
        return *read->cutShort; // nothing of it is left
    if (!faults.empty())
        return faults;
    Design design;
    for (const char* key : {"site", "antennas"})
        if (!root.has(key))
            root.standsIn(key, "is missing");
    design.site = root.partAt("site", readSite).value_or(Site());
    design.operation = root.partAt("operation", readOperation).value_or(Operation());
    design.antennas = root.parts("antennas", readAntenna);
    design.kept = root.rest();
    nameThings(design);
    settleFeeds(design);
    Faults remarks = read->remarks;
    for (const Unread& missing : unread)
        if (!missing.value)
            remarks.push_back(missing.fault);
    if (!unread.empty() || !remarks.empty() || read->cutShort)
        design.damage = std::make_shared<const FileDamage>(
            FileDamage{damagedParts(read->json, unread, plainJson(design)), std::move(remarks), read->cutShort, file});
    return design;
}

bool isSameFile(const std::string& a, const std::string& b)
{
    std::error_code error;
    return a == b || std::filesystem::equivalent(a, b, error);
}

} // namespace

Result<Design> parseDesign(const std::string& text) { return parse(text, {}); }

Result<Design> readDesign(const std::string& path)
{
    const Result<std::string> text = readTextFile(path);
    if (!text)
        return text.faults();
    return parse(*text, path);
}

std::string writeDesign(const Design& design)
{
    Json out = plainJson(design);
    if (design.damage && !design.damage->cutShort)
        putBack(out, design.damage->parts);
    return writeLenient(out);
}

Faults saveDesign(const Design& design, const std::string& path)
{
    if (design.damage && design.damage->cutShort && isSameFile(design.damage->file, path))
        return {
            {path,
             {coreText("core",
                       "ends too early (%1), and what is behind that could not be read: it is not written over; save under another name"),
              design.damage->cutShort->path}}};
    return writeWhole(path, writeDesign(design));
}

} // namespace vetchling::files
