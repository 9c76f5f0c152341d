/// A piece of line across the line, open or shorted at its far end.

#include "core/line/part_kinds.h"

namespace vetchling {
namespace {

using units::Quantity;

class StubPart final : public PartKind {
public:
    std::string id() const override { return part::stub; }
    std::string name() const override { return coreText("core", "stub"); }
    std::string help() const override { return coreText("core", "A piece of line across the line that takes away a reactance."); }
    bool atFeedpoint() const override { return true; }

    const std::vector<PartSpec>& specs() const override
    {
        static const std::vector<PartSpec> all{{"shorted",
                                                coreText("core", "Its end"),
                                                Quantity::Plain,
                                                1.0,
                                                0.0,
                                                1.0,
                                                {coreText("core", "open"), coreText("core", "shorted")},
                                                {}},
                                               metreSpec("length_m", coreText("core", "Length, as cut"), 1.0),
                                               ohmSpec("section_ohm", coreText("core", "Wave impedance"), 50.0, 1.0, 2000.0),
                                               velocitySpec("velocity_factor", coreText("core", "Velocity factor"), 0.66),
                                               conductorLossSpec(),
                                               insulationLossSpec()};
        return all;
    }

    TwoPort at(const ChainPart& part, double frequency) const override
    {
        const auto v = [&](const char* key) { return value(part, key); };
        const TwoPort piece =
            lineAt(v("section_ohm"), v("length_m"), v("velocity_factor"), v("k1_dB_per_100m"), v("k2_dB_per_100m"), frequency);
        // into a short the piece shows b/d, into nothing a/c
        return TwoPort::shunt(v("shorted") > 0.5 ? piece.d / piece.b : piece.c / piece.a);
    }

    Faults faults(const ChainPart& part) const override
    {
        if (value(part, "shorted") > 0.5 && !(value(part, "length_m") > 0.0))
            return {{"length_m", coreText("core", "a shorted stub of no length shorts the line; give it a length")}};
        return {};
    }
};

} // namespace

const PartKind& stubKind()
{
    static const StubPart kind;
    return kind;
}

} // namespace vetchling
