#include "core/line/chain.h"

#include <algorithm>
#include <cmath>

namespace vetchling {
namespace {

constexpr int stepsAWave = 64; // of a line that is walked along

double decibels(double efficiency) { return 0.0 - 10.0 * std::log10(std::max(efficiency, 1e-300)); }

struct Pair {
    double volts, amperes; // peak
};

/// For a power into an impedance.
Pair at(Complex impedance, double power)
{
    if (!(impedance.real() > 0.0) || !(power > 0.0))
        return {0.0, 0.0};
    const double amperes = std::sqrt(2.0 * power / impedance.real());
    return {amperes * std::abs(impedance), amperes};
}

/// Calls back with the impedance and the power, over that into the load, at points along a line from the load to the radio's side.
template <class Function> void walk(const ChainPart& line, Complex load, double frequency, Function f)
{
    const double length = partValue(line, "length_m");
    const double waves = length * frequency / (speedOfLight * partValue(line, "velocity_factor"));
    const int steps = std::clamp(int(std::ceil(stepsAWave * waves)), 8, 4096);
    ChainPart piece = line;
    for (int i = 0; i <= steps; ++i) {
        piece.values["length_m"] = length * i / steps;
        const TwoPort matrix = kindOf(piece).at(piece, frequency);
        f(matrix.towardsRadio(load), 1.0 / matrix.efficiency(load));
    }
}

} // namespace

double Joint::lost() const { return share * (1.0 - std::pow(10.0, -0.1 * loss)); }

double ChainState::totalLoss() const
{
    double sum = 0.0;
    for (const Joint& j : joints)
        sum += j.loss;
    return sum;
}

double ChainState::efficiency() const { return std::pow(10.0, -0.1 * totalLoss()); }

const Joint* ChainState::refusal() const
{
    const auto found = std::find_if(joints.begin(), joints.end(), [](const Joint& j) { return j.refused.has_value(); });
    return found == joints.end() ? nullptr : &*found;
}

ChainState chainAt(const std::vector<ChainPart>& parts, Complex load, double frequency)
{
    ChainState out;
    out.frequency = frequency;
    out.load = load;
    Complex impedance = load;
    std::vector<Complex> loads;
    for (const ChainPart& part : parts) {
        loads.push_back(impedance);
        Passed passed = kindOf(part).pass(part, impedance, frequency);
        Joint joint;
        joint.impedance = impedance = passed.impedance;
        joint.loss = decibels(passed.efficiency);
        joint.solutions = std::move(passed.solutions);
        joint.refused = std::move(passed.refused);
        out.joints.push_back(std::move(joint));
    }
    double power = 1.0;
    for (std::size_t i = out.joints.size(); i-- > 0;) {
        Joint& joint = out.joints[i];
        joint.share = power;
        const Pair here = at(joint.impedance, power);
        joint.volts = here.volts;
        joint.amperes = here.amperes;
        power *= std::pow(10.0, -0.1 * joint.loss);
        joint.mostVolts = std::max(joint.volts, at(loads[i], power).volts);
        if (parts[i].kind == part::line)
            walk(parts[i], loads[i], frequency,
                 [&](Complex z, double over) { joint.mostVolts = std::max(joint.mostVolts, at(z, power * over).volts); });
    }
    const Pair port = at(load, power);
    out.portVolts = port.volts;
    out.portAmperes = port.amperes;
    return out;
}

Through throughChain(const std::vector<ChainPart>& parts, Complex load, double frequency)
{
    Through out{load, 0.0};
    for (const ChainPart& part : parts) {
        const Passed passed = kindOf(part).pass(part, out.impedance, frequency);
        out.impedance = passed.impedance;
        out.loss += decibels(passed.efficiency);
    }
    return out;
}

Complex atSocket(const std::vector<ChainPart>& parts, Complex load, double frequency) { return Socket(parts).seen(load, frequency); }

Socket::Socket(const std::vector<ChainPart>& parts, End end)
{
    for (const ChainPart& part : parts) {
        const PartKind& kind = kindOf(part);
        if (kind.fixed())
            m_parts.emplace_back([at = kind.prepared(part)](Complex load, double frequency) { return at(frequency).towardsRadio(load); });
        else if (end == End::BehindTuner || std::lround(partValue(part, "place")) != part::inRadio)
            m_parts.emplace_back([part, &kind](Complex load, double frequency) { return kind.pass(part, load, frequency).impedance; });
    }
}

Complex Socket::seen(Complex load, double frequency) const
{
    for (const auto& part : m_parts)
        load = part(load, frequency);
    return load;
}

std::vector<ChainPart> ownParts(const std::optional<Transformer>& transformer)
{
    std::vector<ChainPart> parts;
    if (!transformer)
        return parts;
    if (const auto& own = transformer->ownLine) {
        ChainPart line{"own line", part::line, {}, {}, {}, Basis::Assumed, {}};
        line.values = {{"length_m", own->length},   {"impedance_ohm", own->impedance}, {"velocity_factor", own->velocityFactor},
                       {"k1_dB_per_100m", own->k1}, {"k2_dB_per_100m", 0.0},           {"balanced", 1.0}};
        parts.push_back(std::move(line));
    }
    const Transformer& t = *transformer;
    if (t.ratio != 1.0 || t.leakageInductance > 0.0 || t.magnetisingInductance > 0.0 || t.coreLoss > 0.0 || t.capacitance > 0.0) {
        ChainPart windings{"own transformer", part::transformer, {}, {}, {}, Basis::Assumed, {}};
        windings.values = {{"ratio", t.ratio},
                           {"leakage_H", t.leakageInductance},
                           {"magnetising_H", t.magnetisingInductance},
                           {"core_ohm", t.coreLoss},
                           {"capacitance_F", t.capacitance}};
        parts.push_back(std::move(windings));
    }
    return parts;
}

void putTuner(ChainPart& tuner, part::TunerPlace place)
{
    constexpr double separate = 10.0, builtIn = 3.0; // SWR they cope with, usually
    if (std::lround(partValue(tuner, "place")) == place)
        return;
    tuner.values["place"] = place;
    const double range = partValue(tuner, "range_swr"); // 0: whatever comes
    tuner.values["range_swr"] = place == part::inRadio ? builtIn : range > 0.0 ? std::max(separate, range) : range;
}

void settleTuners(std::vector<ChainPart>& parts)
{
    const auto isLine = [](const ChainPart& p) { return p.kind == part::line; };
    const auto line = std::find_if(parts.begin(), parts.end(), isLine);
    if (line == parts.end())
        return;
    for (auto p = parts.begin(); p != parts.end(); ++p) {
        if (p->kind != part::tuner)
            continue;
        const long said = std::lround(partValue(*p, "place"));
        if (p < line)
            putTuner(*p, part::atAntenna);
        else if (said == part::atAntenna || (said == part::inRadio && p + 1 != parts.end()))
            putTuner(*p, part::indoors);
    }
}

std::size_t feedpointParts(const std::vector<ChainPart>& parts)
{
    return std::size_t(std::find_if(parts.begin(), parts.end(), [](const ChainPart& p) { return !kindOf(p).atFeedpoint(); }) -
                       parts.begin());
}

std::vector<Complex> wayThrough(const ChainPart& part, Complex load, double frequency, double reference)
{
    std::vector<Complex> way;
    if (part.kind == part::line)
        walk(part, load, frequency, [&](Complex z, double) { way.push_back(reflection(z, reference)); });
    else
        way = {reflection(load, reference), reflection(kindOf(part).pass(part, load, frequency).impedance, reference)};
    return way;
}

std::vector<ChainPart> guessed(std::vector<ChainPart> parts, Guess guess)
{
    for (ChainPart& p : parts) {
        const double from = partValue(p, "loss_from_dB"), to = partValue(p, "loss_to_dB");
        if (guess == Guess::Told || !(to > from))
            continue;
        p.lossTable.clear();
        p.values["loss_dB"] = guess == Guess::Least ? from : to;
    }
    return parts;
}

bool isGuess(const std::vector<ChainPart>& parts)
{
    return std::any_of(parts.begin(), parts.end(),
                       [](const ChainPart& p) { return partValue(p, "loss_to_dB") > partValue(p, "loss_from_dB"); });
}

} // namespace vetchling
