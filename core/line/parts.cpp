#include "core/line/part_kinds.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <unordered_map>

namespace vetchling {
namespace {

/// Stands for what a newer version of the program knows.
class UnknownPart final : public PartKind {
public:
    std::string id() const override { return "unknown"; }
    std::string name() const override { return coreText("core", "unknown part"); }
    std::string help() const override
    {
        return coreText("core", "This version of the program does not know it; it is kept, and lets everything pass.");
    }
    const std::vector<PartSpec>& specs() const override
    {
        static const std::vector<PartSpec> none;
        return none;
    }
    TwoPort at(const ChainPart&, double) const override { return {}; }
};

} // namespace

const std::vector<const PartKind*>& partKinds()
{
    static const std::vector<const PartKind*> all{&transformerKind(), &chokeKind(), &lineKind(),       &sectionKind(), &stubKind(),
                                                  &networkKind(),     &tunerKind(), &attenuatorKind(), &meterKind(),   &lumpKind()};
    return all;
}

const PartKind* findPartKind(const std::string& id)
{
    static const std::unordered_map<std::string, const PartKind*> byId = [] {
        std::unordered_map<std::string, const PartKind*> all;
        for (const PartKind* k : partKinds())
            all[k->id()] = k;
        return all;
    }();
    const auto found = byId.find(id);
    return found == byId.end() ? nullptr : found->second;
}

const PartKind& kindOf(const ChainPart& part)
{
    static const UnknownPart unknown;
    const PartKind* kind = findPartKind(part.kind);
    return kind ? *kind : unknown;
}

double partValue(const ChainPart& part, const std::string& key) { return kindOf(part).value(part, key); }

const PartSpec* PartKind::spec(const std::string& key) const
{
    const auto found = std::find_if(specs().begin(), specs().end(), [&](const PartSpec& s) { return s.key == key; });
    return found == specs().end() ? nullptr : &*found;
}

double PartKind::value(const ChainPart& part, const std::string& key) const
{
    if (const auto own = part.values.find(key); own != part.values.end())
        return own->second;
    const PartSpec* s = spec(key);
    return s ? s->standard : 0.0;
}

std::function<TwoPort(double)> PartKind::prepared(const ChainPart& part) const
{
    return [this, part](double frequency) { return at(part, frequency); };
}

Passed PartKind::pass(const ChainPart& part, Complex load, double frequency) const
{
    const TwoPort matrix = at(part, frequency);
    return {matrix.towardsRadio(load), matrix.efficiency(load), {}, {}};
}

Faults findPartFaults(const ChainPart& part)
{
    const PartKind& kind = kindOf(part);
    Faults faults;
    for (const auto& [key, value] : part.values)
        if (const PartSpec* s = kind.spec(key); s && !(value >= s->lowest && value <= s->highest))
            faults.push_back({key,
                              {coreText("core", "%1 is outside %2 to %3"), s->label, Measure{s->lowest, s->quantity},
                               Measure{s->highest, s->quantity}}});
    for (std::size_t i = 0; i < part.lossTable.size(); ++i) {
        const auto& [frequency, loss] = part.lossTable[i];
        if (!(frequency > 0.0 && loss >= 0.0 && loss <= 60.0) || (i > 0 && frequency <= part.lossTable[i - 1].first))
            faults.push_back({"loss_table", coreText("core", "a table of losses has rising frequencies and losses from 0 to 60 dB")});
    }
    for (Fault& f : kind.faults(part))
        faults.push_back(std::move(f));
    return faults;
}

TwoPort plainLoss(double loss)
{
    const double share = std::exp(loss * (std::numbers::ln10 / 20.0));
    return {share, 0.0, 0.0, share};
}

double statedLoss(const ChainPart& part, double frequency)
{
    static const std::string key = "loss_dB"; // asked for at every sample of a curve
    const auto& table = part.lossTable;
    if (table.empty()) {
        const auto own = part.values.find(key);
        return own != part.values.end() ? own->second : partValue(part, key);
    }
    if (frequency <= table.front().first)
        return table.front().second;
    for (std::size_t i = 1; i < table.size(); ++i)
        if (frequency <= table[i].first) {
            const double along = (frequency - table[i - 1].first) / (table[i].first - table[i - 1].first);
            return table[i - 1].second + along * (table[i].second - table[i - 1].second);
        }
    return table.back().second;
}

TwoPort lineAt(Complex z, double length, double velocityFactor, double k1, double k2, double frequency)
{
    constexpr double decibelsANeper = 8.685889638;
    const double megahertz = frequency / 1e6;
    const double loss = (k1 * std::sqrt(megahertz) + k2 * megahertz) * length / 100.0 / decibelsANeper;
    return TwoPort::line(z, {loss, 2.0 * pi * frequency * length / (speedOfLight * velocityFactor)});
}

} // namespace vetchling
