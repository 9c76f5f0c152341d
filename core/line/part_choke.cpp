/// A common-mode choke: nothing but a little loss for the wave inside, a high impedance for what flows outside.

#include "core/line/part_kinds.h"

namespace vetchling {
namespace {

using units::Quantity;

class ChokePart final : public PartKind {
public:
    std::string id() const override { return part::choke; }
    std::string name() const override { return coreText("core", "choke"); }
    std::string help() const override
    {
        return coreText("core", "Keeps current off the outside of the line, and hardly touches what flows inside.");
    }
    bool atFeedpoint() const override { return true; }

    const std::vector<PartSpec>& specs() const override
    {
        static const std::vector<PartSpec> all = made();
        return all;
    }

    TwoPort at(const ChainPart& part, double frequency) const override { return plainLoss(statedLoss(part, frequency)); }

private:
    static std::vector<PartSpec> made()
    {
        std::vector<PartSpec> all;
        all.push_back(
            metreSpec("at_m", coreText("core", "From the feedpoint"), 0.0, coreText("core", "where on the line's outside it sits")));
        all.push_back(
            ohmSpec("choking_ohm", coreText("core", "Chokes with, at its best"), 3000.0, 0.0, 1e6,
                    coreText("core", "impedance for current on the outside, where its coil and its capacitance are in resonance")));
        all.push_back({"choking_H",
                       coreText("core", "Its inductance"),
                       Quantity::Inductance,
                       60e-6,
                       0.0,
                       1e-2,
                       {},
                       coreText("core", "limits it below that. 0: the same at all frequencies")});
        all.push_back({"choking_F",
                       coreText("core", "Its capacitance"),
                       Quantity::Capacitance,
                       3e-12,
                       0.0,
                       1e-9,
                       {},
                       coreText("core", "from end to end; limits it above that")});
        all.push_back({"rating_W",
                       coreText("core", "Stands heat of"),
                       Quantity::Power,
                       0.0,
                       0.0,
                       1e5,
                       {},
                       coreText("core", "what the core can get rid of without growing too hot. 0: not known")});
        addLossSpecs(all, 0.05);
        return all;
    }
};

} // namespace

const PartKind& chokeKind()
{
    static const ChokePart kind;
    return kind;
}

std::optional<Complex> chokingImpedance(const ChainPart& part, double frequency)
{
    const double resistance = partValue(part, "choking_ohm"), w = 2.0 * pi * frequency;
    if (!(resistance > 0.0))
        return std::nullopt;
    Complex admittance = 1.0 / resistance;
    if (const double henry = partValue(part, "choking_H"); henry > 0.0)
        admittance += 1.0 / Complex{0.0, w * henry} + Complex{0.0, w * partValue(part, "choking_F")};
    return 1.0 / admittance;
}

} // namespace vetchling
