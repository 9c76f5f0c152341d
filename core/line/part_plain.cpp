/// What only takes its share: an attenuator, a power meter, several things of which one knows the sum.

#include "core/line/part_kinds.h"

namespace vetchling {
namespace {

using units::Quantity;

constexpr double decibelsANeper = 8.685889638;

class AttenuatorPart final : public PartKind {
public:
    std::string id() const override { return part::attenuator; }
    std::string name() const override { return coreText("core", "attenuator"); }
    std::string help() const override { return coreText("core", "Takes power on purpose, and makes every SWR look better."); }

    const std::vector<PartSpec>& specs() const override
    {
        static const std::vector<PartSpec> all{
            {"loss_dB", coreText("core", "It takes"), Quantity::Decibel, 3.0, 0.0, 60.0, {}, coreText("core", "into a matched load")},
            ohmSpec("impedance_ohm", coreText("core", "Made for"), 50.0, 1.0, 2000.0)};
        return all;
    }
    /// The same as a line without length that loses so much.
    TwoPort at(const ChainPart& part, double) const override
    {
        return TwoPort::line(value(part, "impedance_ohm"), value(part, "loss_dB") / decibelsANeper);
    }
};

/// Loses a stated part and leaves the impedance as it is.
class LossOnly final : public PartKind {
public:
    LossOnly(const char* id, const char* name, const char* help, double standard) : m_id(id), m_name(name), m_help(help)
    {
        addLossSpecs(m_specs, standard);
    }
    std::string id() const override { return m_id; }
    std::string name() const override { return m_name; }
    std::string help() const override { return m_help; }
    const std::vector<PartSpec>& specs() const override { return m_specs; }
    TwoPort at(const ChainPart& part, double frequency) const override { return plainLoss(statedLoss(part, frequency)); }

private:
    const char *m_id, *m_name, *m_help;
    std::vector<PartSpec> m_specs;
};

} // namespace

const PartKind& attenuatorKind()
{
    static const AttenuatorPart kind;
    return kind;
}

const PartKind& meterKind()
{
    static const LossOnly kind(part::meter, coreText("core", "power meter"),
                               coreText("core", "Where forward and reflected power are read."), 0.1);
    return kind;
}

const PartKind& lumpKind()
{
    static const LossOnly kind(
        part::lump, coreText("core", "several together"),
        coreText("core", "Parts of which only the sum is known: tuner and transformer together, a switch, connectors."), 1.5);
    return kind;
}

} // namespace vetchling
