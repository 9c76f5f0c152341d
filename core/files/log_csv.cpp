#include "core/files/log_csv.h"

#include <fmt/format.h>

namespace vetchling::files {
namespace {

std::string quoted(const std::string& text)
{
    if (text.find_first_of(",\"\n") == std::string::npos)
        return text;
    std::string out = "\"";
    for (char c : text)
        out += c == '"' ? std::string("\"\"") : std::string(1, c);
    return out + '"';
}

std::string numberOr(double value, bool known) { return known ? fmt::format("{:.10g}", value) : std::string(); }

} // namespace

std::string logCsv(const Antenna& antenna)
{
    std::string out =
        "entry,when,parameter,cut_m,folded,height_m,dip_Hz,dip_swr,coax_m,soil,weather,place,instrument,remark,frequency_Hz,distance_m,"
        "bearing_deg,power_W,report,configuration,as_cut_longer_m,solar_flux,k_index,fading\n";
    const auto asCutOf = [&](const Measurement& m) {
        const auto longer = antenna.trim.asCut.find(m.parameter);
        return longer == antenna.trim.asCut.end() ? std::string() : fmt::format("{:.10g}", longer->second);
    };
    for (const Measurement& m : antenna.trim.measurements)
        out += fmt::format("measurement,{},{},{:.10g},{},{},{:.10g},{},{},{},{},{},{},{},,,,,,{},{},,,\n", quoted(m.when), m.parameter,
                           m.cutSinceLast, m.folded ? "yes" : "no", numberOr(m.height.value_or(0.0), m.height.has_value()), m.dip,
                           numberOr(m.dipSwr, m.dipSwr > 0.0), numberOr(m.coax, m.coax > 0.0), soilStateWords[std::size_t(m.soil)],
                           quoted(m.weather), quoted(m.place), quoted(m.instrument), quoted(m.remark),
                           m.configuration ? std::to_string(*m.configuration + 1) : std::string(), asCutOf(m));
    for (const AirReport& r : antenna.trim.reports)
        out += fmt::format("report,{},,,,,,,,,,,,{},{:.10g},{:.10g},{},{},{},,,{},{},{}\n", quoted(r.when), quoted(r.remark), r.frequency,
                           r.distance, numberOr(r.bearing.value_or(0.0), r.bearing.has_value()), numberOr(r.power, r.power > 0.0),
                           quoted(r.report), numberOr(r.solarFlux.value_or(0.0), r.solarFlux.has_value()),
                           numberOr(r.kIndex.value_or(0.0), r.kIndex.has_value()), fadingWords[std::size_t(r.fading)]);
    return out;
}

} // namespace vetchling::files
