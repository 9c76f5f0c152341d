#include "core/files/sweep_file.h"

#include "core/files/json_reader.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace vetchling::files {
namespace {

std::string oneLine(std::string name)
{
    std::replace(name.begin(), name.end(), '\n', ' ');
    return name;
}

} // namespace

SweepTable sweepTable(const em::ImpedanceCurve& curve, double from, double to)
{
    SweepTable table{curve.displayFrequencies(from, to), {}, curve.solves};
    for (double f : table.frequency)
        table.impedance.push_back(curve.at(f));
    return table;
}

std::string sweepJson(const SweepTable& table)
{
    Json out{{"format", "vetchling-sweep"}, {"version", 1}, {"frequency_Hz", table.frequency}};
    Json r = Json::array(), x = Json::array(), s = Json::array();
    for (Complex z : table.impedance) {
        r.push_back(z.real());
        x.push_back(z.imag());
        const double ratio = swr(z);
        s.push_back(std::isfinite(ratio) ? Json(ratio) : Json(nullptr));
    }
    out["r_ohm"] = r;
    out["x_ohm"] = x;
    out["swr_50"] = s;
    out["solves"] = table.solves;
    return out.dump(1) + "\n";
}

std::string sweepCsv(const SweepTable& table)
{
    std::string out = (table.antenna.empty() ? "" : "# " + oneLine(table.antenna) + "\n") + "frequency_Hz,r_ohm,x_ohm,swr_50\n";
    for (std::size_t i = 0; i < table.frequency.size(); ++i)
        out += fmt::format("{:.3f},{:.5g},{:.5g},{:.5g}\n", table.frequency[i], table.impedance[i].real(), table.impedance[i].imag(),
                           swr(table.impedance[i]));
    return out;
}

std::string sweepTouchstone(const SweepTable& table)
{
    std::string out = (table.antenna.empty() ? "" : "! " + oneLine(table.antenna) + "\n") + "! one port, computed\n# Hz S RI R 50\n";
    for (std::size_t i = 0; i < table.frequency.size(); ++i) {
        const Complex g = (table.impedance[i] - 50.0) / (table.impedance[i] + 50.0);
        out += fmt::format("{:.3f} {:.8f} {:.8f}\n", table.frequency[i], g.real(), g.imag());
    }
    return out;
}

} // namespace vetchling::files
