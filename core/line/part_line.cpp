/// Coax or open-wire line between two places.

#include "core/line/line_types.h"
#include "core/line/part_kinds.h"

namespace vetchling {
namespace {

using units::Quantity;

class LinePart final : public PartKind {
public:
    std::string id() const override { return part::line; }
    std::string name() const override { return coreText("core", "line"); }
    std::string help() const override
    {
        return coreText("core", "Coax or open-wire line; its loss grows with the frequency and with the SWR on it.");
    }

    const std::vector<PartSpec>& specs() const override
    {
        static const std::vector<PartSpec> all = made();
        return all;
    }

    TwoPort at(const ChainPart& part, double frequency) const override { return prepared(part)(frequency); }

    std::function<TwoPort(double)> prepared(const ChainPart& part) const override
    {
        const auto v = [&](const char* key) { return value(part, key); };
        return [z = Complex{v("impedance_ohm"), v("impedance_imag_ohm")}, length = v("length_m"), velocity = v("velocity_factor"),
                k1 = v("k1_dB_per_100m"),
                k2 = v("k2_dB_per_100m")](double frequency) { return lineAt(z, length, velocity, k1, k2, frequency); };
    }

private:
    static std::vector<PartSpec> made()
    {
        return {metreSpec("length_m", coreText("core", "Length"), 15.0),
                ohmSpec("impedance_ohm", coreText("core", "Wave impedance"), 50.0, 1.0, 2000.0),
                {"impedance_imag_ohm",
                 coreText("core", "its imaginary part"),
                 Quantity::Resistance,
                 0.0,
                 -500.0,
                 500.0,
                 {},
                 coreText("core", "of lossy lines at low frequencies; 0 for most uses")},
                velocitySpec("velocity_factor", coreText("core", "Velocity factor"), 0.66),
                conductorLossSpec(),
                insulationLossSpec(),
                {"balanced",
                 coreText("core", "Kind"),
                 Quantity::Plain,
                 0.0,
                 0.0,
                 1.0,
                 {coreText("core", "coax"), coreText("core", "open-wire line")},
                 {}}};
    }
};

} // namespace

const PartKind& lineKind()
{
    static const LinePart kind;
    return kind;
}

void takeType(ChainPart& part, const LineType& type)
{
    part.type = type.id;
    part.values["impedance_ohm"] = type.impedance;
    part.values.erase("impedance_imag_ohm");
    part.values["velocity_factor"] = type.velocityFactor;
    part.values["k1_dB_per_100m"] = type.k1;
    part.values["k2_dB_per_100m"] = type.k2;
    part.values["balanced"] = type.balanced ? 1.0 : 0.0;
    part.basis = Basis::Computed;
}

} // namespace vetchling
