/// A transformer: a plain loss, or a core with its winding, leakage and capacitance (Transformer), or both.

#include "core/line/part_kinds.h"
#include "core/line/transformer.h"

namespace vetchling {
namespace {

using units::Quantity;

class TransformerPart final : public PartKind {
public:
    std::string id() const override { return part::transformer; }
    std::string name() const override { return coreText("core", "transformer"); }
    std::string help() const override
    {
        return coreText("core", "Steps the antenna's impedance down to the line's, and joins what is balanced to what is not.");
    }
    bool atFeedpoint() const override { return true; }

    const std::vector<PartSpec>& specs() const override
    {
        static const std::vector<PartSpec> all = made();
        return all;
    }

    TwoPort at(const ChainPart& part, double frequency) const override
    {
        const auto v = [&](const char* key) { return value(part, key); };
        const Transformer windings{v("ratio"), v("leakage_H"), v("magnetising_H"), v("core_ohm"), {}, v("capacitance_F")};
        return plainLoss(statedLoss(part, frequency)).then(TwoPort::series(v("copper_ohm"))).then(windings.at(frequency));
    }

private:
    static std::vector<PartSpec> made()
    {
        std::vector<PartSpec> all{{"ratio",
                                   coreText("core", "Ratio, to 1"),
                                   Quantity::Plain,
                                   1.0,
                                   0.01,
                                   400.0,
                                   {},
                                   coreText("core", "impedance on the antenna's side over that on the line's")}};
        addLossSpecs(all, 0.0);
        all.push_back({"magnetising_H",
                       coreText("core", "Winding on the line's side"),
                       Quantity::Inductance,
                       0.0,
                       0.0,
                       1e-2,
                       {},
                       coreText("core", "inductance; too little lifts the SWR on the lowest band. 0: not counted")});
        all.push_back({"leakage_H",
                       coreText("core", "Leakage inductance"),
                       Quantity::Inductance,
                       0.0,
                       0.0,
                       1e-4,
                       {},
                       coreText("core", "on the line's side; spoils the highest bands. 0: not counted")});
        all.push_back({"capacitance_F",
                       coreText("core", "Capacitor across the line"),
                       Quantity::Capacitance,
                       0.0,
                       0.0,
                       1e-8,
                       {},
                       coreText("core", "against its leakage and for the upper bands. 0: none")});
        all.push_back(ohmSpec("core_ohm", coreText("core", "Core loss, across the line"), 0.0, 0.0, 1e6,
                              coreText("core", "what the core looks like on the line's side. 0: none")));
        all.push_back(ohmSpec(
            "copper_ohm", coreText("core", "Copper, in the line's path"), 0.0, 0.0, 1e3,
            coreText("core", "of both windings together, seen on the line's side: what a load far below its ratio burns. 0: not counted")));
        all.push_back(
            {"current_kind",
             coreText("core", "Kind"),
             Quantity::Plain,
             0.0,
             0.0,
             1.0,
             {coreText("core", "voltage"), coreText("core", "current")},
             coreText("core", "a voltage transformer makes equal voltages to earth, a current one equal currents in the two legs")});
        all.push_back({"windings",
                       coreText("core", "Windings"),
                       Quantity::Plain,
                       1.0,
                       0.0,
                       2.0,
                       {coreText("core", "one, tapped"), coreText("core", "two"), coreText("core", "three")},
                       coreText("core", "one tapped winding does not part the antenna from the line: a choke does")});
        all.push_back({"rating_W",
                       coreText("core", "Stands heat of"),
                       Quantity::Power,
                       0.0,
                       0.0,
                       1e5,
                       {},
                       coreText("core", "what the core can get rid of without growing too hot. 0: not known")});
        return all;
    }
};

} // namespace

const PartKind& transformerKind()
{
    static const TransformerPart kind;
    return kind;
}

} // namespace vetchling
