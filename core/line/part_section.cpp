/// A matching section: one or two pieces of line in a row. Piece 1 is the one next to the radio.

#include "core/line/part_kinds.h"

namespace vetchling {
namespace {

using units::Quantity;

class SectionPart final : public PartKind {
public:
    std::string id() const override { return part::section; }
    std::string name() const override { return coreText("core", "matching section"); }
    std::string help() const override
    {
        return coreText("core", "One or two pieces of line of chosen length that turn one impedance into another.");
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
        const auto piece = [&](const char* ohm, const char* length, const char* velocity) {
            return lineAt(v(ohm), v(length), v(velocity), v("k1_dB_per_100m"), v("k2_dB_per_100m"), frequency);
        };
        return piece("section_ohm", "length_1_m", "velocity_factor").then(piece("section_2_ohm", "length_2_m", "velocity_factor_2"));
    }

private:
    static std::vector<PartSpec> made()
    {
        return {{"method",
                 coreText("core", "Kind"),
                 Quantity::Plain,
                 0.0,
                 0.0,
                 2.0,
                 {coreText("core", "quarter wave"), coreText("core", "two sections"), coreText("core", "series section")},
                 coreText("core", "how it is sized for the band that is looked at")},
                ohmSpec("section_ohm", coreText("core", "Wave impedance"), 75.0, 1.0, 2000.0),
                metreSpec("length_1_m", coreText("core", "Length, as cut"), 2.3,
                          coreText("core", "with its velocity factor; the piece next to the radio")),
                velocitySpec("velocity_factor", coreText("core", "Velocity factor"), 0.66),
                metreSpec("length_2_m", coreText("core", "Piece at the antenna"), 0.0, coreText("core", "of the second line; 0: none")),
                ohmSpec("section_2_ohm", coreText("core", "its wave impedance"), 50.0, 1.0, 2000.0),
                velocitySpec("velocity_factor_2", coreText("core", "its velocity factor"), 0.66),
                conductorLossSpec(),
                insulationLossSpec()};
    }
};

} // namespace

const PartKind& sectionKind()
{
    static const SectionPart kind;
    return kind;
}

} // namespace vetchling
