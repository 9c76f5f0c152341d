/// A tuner: the better of the two-element networks that match exactly, within its range.

#include "core/line/part_kinds.h"

#include <algorithm>
#include <cmath>

namespace vetchling {
namespace {

using units::Quantity;

class TunerPart final : public PartKind {
public:
    std::string id() const override { return part::tuner; }
    std::string name() const override { return coreText("core", "tuner"); }
    std::string help() const override
    {
        return coreText("core",
                        "Makes the radio see what it wants to see; the SWR on the line behind it stays, and so does the line's loss.");
    }
    bool fixed() const override { return false; }

    const std::vector<PartSpec>& specs() const override
    {
        static const std::vector<PartSpec> all = made();
        return all;
    }

    TwoPort at(const ChainPart&, double) const override { return {}; }

    Passed pass(const ChainPart& part, Complex load, double frequency) const override
    {
        const auto v = [&](const char* key) { return value(part, key); };
        Passed out{load, 1.0, {}, {}};
        const double to = v("to_ohm"), range = v("range_swr"), mismatch = swr(load, to);
        if (range > 0.0 && mismatch > range) {
            out.refused = Text(coreText("core", "SWR %1 is beyond its range of %2"), Measure{rounded(mismatch)}, Measure{range});
            return out;
        }
        for (const NetworkSolution& s : networksFor(load, to, frequency, v("inductor_q"), v("capacitor_q")))
            if (has(part, s.shunt) && has(part, s.series))
                out.solutions.push_back(s);
        if (out.solutions.empty()) {
            if (mismatch > 1.0 + 1e-6)
                out.refused = load.real() > 0.0 ? Text(coreText("core", "it would need a larger coil or capacitor than it has"))
                                                : Text(coreText("core", "there is no resistance to be matched"));
            return out;
        }
        out.impedance = to;
        out.efficiency = std::pow(10.0, -0.1 * (part.values.contains("loss_dB") || !part.lossTable.empty() ? statedLoss(part, frequency)
                                                                                                           : out.solutions.front().loss));
        return out;
    }

private:
    static double rounded(double swr) { return std::isfinite(swr) ? std::round(10.0 * std::min(swr, 9999.0)) / 10.0 : 9999.0; }

    bool has(const ChainPart& part, const Reactance& r) const
    {
        const double most = value(part, r.inductor ? "most_H" : "most_F");
        return most <= 0.0 || r.value <= most;
    }

    static std::vector<PartSpec> made()
    {
        std::vector<PartSpec> all{
            {"place",
             coreText("core", "It stands"),
             Quantity::Plain,
             0.0,
             0.0,
             2.0,
             {coreText("core", "in the radio"), coreText("core", "indoors"), coreText("core", "at the antenna")},
             coreText("core", "in the radio it is no part of what is measured at its socket")},
            {"range_swr",
             coreText("core", "Tunes an SWR up to"),
             Quantity::Plain,
             0.0,
             0.0,
             10000.0,
             {},
             coreText("core", "many built-in ones cope with 3. 0: with everything")},
            qSpec("inductor_q", coreText("core", "Q of its coils"), 150.0),
            qSpec("capacitor_q", coreText("core", "Q of its capacitors"), 2000.0),
            ohmSpec("to_ohm", coreText("core", "Makes"), 50.0, 1.0, 1000.0),
            {"most_H", coreText("core", "Largest coil"), Quantity::Inductance, 0.0, 0.0, 1e-2, {}, coreText("core", "0: any")},
            {"most_F", coreText("core", "Largest capacitor"), Quantity::Capacitance, 0.0, 0.0, 1e-6, {}, coreText("core", "0: any")}};
        addLossSpecs(all, 0.0);
        all[7].help = coreText("core", "measured; left empty it is computed from the Q of its parts");
        return all;
    }
};

} // namespace

const PartKind& tunerKind()
{
    static const TunerPart kind;
    return kind;
}

} // namespace vetchling
