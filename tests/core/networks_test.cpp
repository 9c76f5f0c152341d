#include "core/wire/networks.h"

#include "core/files/wire_file.h"
#include "tests/core/helpers.h"

namespace vetchling::em {
namespace {

using namespace testing;

constexpr double networksHz = 14.1e6;
const double quarter = 0.25 * wavelength(networksHz);

LineSection line(double length, double impedance = 300.0)
{
    LineSection l;
    l.length = length;
    l.characteristicImpedance = impedance;
    return l;
}

// ---- the parts by themselves

TEST(LineSection, QuarterWaveStubsAreShortAndOpen)
{
    LineSection stub = line(quarter);
    stub.end = LineEnd::Open;
    EXPECT_LT(std::abs(stub.stubImpedance(networksHz)), 1e-3);
    stub.end = LineEnd::Short;
    EXPECT_GT(std::abs(stub.stubImpedance(networksHz)), 1e6);
    stub.length = 0.5 * quarter; // an eighth: j Zc
    EXPECT_LT(std::abs(stub.stubImpedance(networksHz) - Complex{0.0, 300.0}), 1e-5);
}

TEST(LineSection, VelocityFactorShortensIt)
{
    LineSection full = line(3.0), slow = line(2.0);
    full.end = slow.end = LineEnd::Short;
    slow.velocityFactor = 2.0 / 3.0;
    EXPECT_LT(relative(slow.stubImpedance(networksHz), full.stubImpedance(networksHz)), 1e-9);
}

/// Input impedance of a section with a load at its far end, from its open-circuit impedances.
Complex terminated(const LineSection& l, Complex load)
{
    const auto [own, mutual] = l.impedances(networksHz);
    return own - mutual * mutual / (own + load);
}

TEST(LineSection, QuarterWaveInvertsImpedance)
{
    EXPECT_LT(relative(terminated(line(quarter), {50.0, 20.0}), 90000.0 / Complex{50.0, 20.0}), 1e-6);
}

TEST(LineSection, MatchedLineLosesItsDecibels)
{
    LineSection l = line(20.0, 50.0);
    l.lossPerMetre = 0.05; // 1 dB
    EXPECT_LT(relative(terminated(l, 50.0), 50.0), 1e-9);
    const auto [own, mutual] = l.impedances(networksHz);
    const double transferred = std::norm(mutual / (own + 50.0)); // |I2/I1|^2 at equal impedances
    EXPECT_NEAR(10.0 * std::log10(transferred), -1.0, 1e-9);
}

TEST(Transformer, IdealOneDividesTheImpedance)
{
    Transformer t;
    t.ratio = 49.0;
    EXPECT_LT(relative(t.atLine({2450.0, -490.0}, networksHz), {50.0, -10.0}), 1e-12);
    EXPECT_DOUBLE_EQ(t.at(networksHz).efficiency({2450.0, -490.0}), 1.0);
}

TEST(Transformer, SlopeIsThatOfTheImpedanceAtTheLine)
{
    const Transformer t{49.0, 2e-7, 3e-6, 400.0};
    const double networksHz = 7e6;
    for (Complex gap : {Complex{2500.0, 300.0}, Complex{80.0, -900.0}}) {
        const Complex step{1.0, 1.0};
        const Complex difference = (t.atLine(gap + step, networksHz) - t.atLine(gap - step, networksHz)) / (2.0 * step);
        EXPECT_LT(std::abs(t.at(networksHz).slope(gap) - difference), 1e-5 * std::abs(difference));
    }
}

TEST(Transformer, CoreLeakageAndMagnetisingCountAtTheLine)
{
    Transformer t{49.0, 0.3e-6, 10e-6, 1000.0};
    const Complex jw{0.0, 2.0 * pi * networksHz}, gap{2450.0, 300.0};
    const Complex expected = jw * 0.3e-6 + 1.0 / (49.0 / gap + 1e-3 + 1.0 / (jw * 10e-6));
    EXPECT_LT(relative(t.atLine(gap, networksHz), expected), 1e-12);
    // the same voltage across gap and core: power divides as the conductances
    EXPECT_NEAR(t.at(networksHz).efficiency(gap), (49.0 / gap).real() / ((49.0 / gap).real() + 1e-3), 1e-12);
}

TEST(LoadWithSelfResonance, IsAParallelCircuitThere)
{
    Load coil;
    coil.inductance = 10e-6, coil.q = 200.0, coil.selfResonance = 20e6;
    Load plain = coil;
    plain.selfResonance = 0.0;
    EXPECT_GT(coil.impedance(10e6).imag(), 1.3 * plain.impedance(10e6).imag()); // 1/(1 - 1/4)
    EXPECT_NEAR(std::abs(coil.impedance(20e6)) / (200.0 * 2.0 * pi * 20e6 * 10e-6), 1.0, 1e-4);
    EXPECT_LT(coil.impedance(30e6).imag(), 0.0);
}

// ---- in the wire model

/// Two parallel dipoles with ports in their middles.
WireModel twoDipoles()
{
    WireModel model = fedWire({{-5, 0, 8}, {5, 0, 8}}, 5.0, averageSoil);
    model.wires.push_back(wire("b", {{-4.8, 3, 8}, {4.8, 3, 8}}));
    return model;
}

/// What the two-port of the dipoles makes of a line between them, by circuit theory alone.
Complex byCircuit(const LineSection& l)
{
    GroundTableCache tables;
    Complex y[2][2];
    for (int driven : {0, 1}) {
        WireModel model = twoDipoles();
        model.feeds = {{0, 5.0, driven == 0 ? 1.0 : 0.0}, {1, 4.8, driven == 1 ? 1.0 : 0.0}};
        const Solution s = solved(model, networksHz, tables);
        y[0][driven] = s.feedCurrents[0], y[1][driven] = s.feedCurrents[1];
    }
    const Complex determinant = y[0][0] * y[1][1] - y[0][1] * y[1][0];
    const Complex z11 = y[1][1] / determinant, z12 = -y[0][1] / determinant, z22 = y[0][0] / determinant;
    const auto [own, mutual] = l.impedances(networksHz); // in series in both loops; the source too is in the first
    return (z11 + own) - (z12 + mutual) * (z12 + mutual) / (z22 + own);
}

TEST(LinesInTheModel, JoinedDipolesAgreeWithCircuitTheory)
{
    for (bool crossed : {false, true}) {
        LineSection l = line(2.7, 450.0);
        l.lossPerMetre = 0.02, l.crossed = crossed;
        l.fromWire = 0, l.fromAt = 5.0, l.toWire = 1, l.toAt = 4.8;
        WireModel model = twoDipoles();
        model.lines.push_back(l);
        const Solution s = solved(model, networksHz);
        EXPECT_LT(relative(s.impedance, byCircuit(l)), 1e-6) << crossed;
        EXPECT_NEAR(ledgerOf(s).sum(), 1.0, 2e-3);
        EXPECT_GT(ledgerOf(s).lines, 0.0);
    }
}

TEST(LinesInTheModel, AStubIsALoad)
{
    LineSection stub = line(2.0, 600.0);
    stub.end = LineEnd::Short;
    stub.fromWire = 0, stub.fromAt = 2.0;
    WireModel model = dipole(10, 8, averageSoil), loaded = model;
    model.lines.push_back(stub);
    Load coil;
    coil.at = 2.0;
    coil.inductance = stub.stubImpedance(networksHz).imag() / (2.0 * pi * networksHz);
    loaded.loads.push_back(coil);
    EXPECT_LT(relative(solved(model, networksHz).impedance, solved(loaded, networksHz).impedance), 1e-6);
}

TEST(TransformerInTheModel, ItsLossIsAShareOfTheLedger)
{
    WireModel model = dipole(20.0, 8, averageSoil);
    const Complex gap = solved(model, networksHz).impedance;
    const Transformer t{49.0, 0.2e-6, 8e-6, 600.0};
    model.feeds[0].transformer = t;
    const Solution s = solved(model, networksHz);
    EXPECT_LT(relative(s.impedance, t.atLine(gap, networksHz)), 1e-12);
    const PowerLedger ledger = ledgerOf(s);
    EXPECT_NEAR(ledger.transformer, 1.0 - t.at(networksHz).efficiency(gap), 1e-9);
    EXPECT_NEAR(ledger.sum(), 1.0, 2e-3);
}

// ---- in the file

const char* const file = R"({"format":"vetchling-wires","version":1,"ground":{"kind":"free-space"},
 "wires":[{"id":"a","points_m":[[0,-5,9],[0,5,9]],"radius_m":0.001},{"id":"b","points_m":[[2,-5,9],[2,5,9]],"radius_m":0.001}],
 "feeds":[{"wire":"a","at_m":5,"voltage_V":[1,0],"transformer":{"ratio":4,"leakage_H":1e-7}}],
 "loads":[{"wire":"a","at_m":2,"inductance_H":1e-6,"q":200,"self_resonance_Hz":4e7}],
 "lines":[{"from":{"wire":"a","at_m":4},"to":{"wire":"b","at_m":5},"impedance_ohm":450,"length_m":2,"velocity_factor":0.95,"crossed":true},
          {"from":{"wire":"b","at_m":3},"end":"open","impedance_ohm":50,"length_m":1.5}],
 "frequencies_Hz":[14.1e6],"pattern":{"elevations_deg":[],"azimuths_deg":[]}})";

TEST(NetworksInTheFile, AreReadAndWrittenAlike)
{
    const auto read = files::parseWireFile(file);
    ASSERT_TRUE(read) << read.firstFault();
    const auto again = files::parseWireFile(files::writeWireFile(*read));
    ASSERT_TRUE(again) << again.firstFault();
    ASSERT_EQ(again->model.lines.size(), 2u);
    EXPECT_TRUE(again->model.lines[0].crossed);
    EXPECT_EQ(again->model.lines[0].toWire, 1u);
    EXPECT_EQ(again->model.lines[1].end, LineEnd::Open);
    EXPECT_DOUBLE_EQ(again->model.feeds[0].transformer->ratio, 4.0);
    EXPECT_DOUBLE_EQ(again->model.loads[0].selfResonance, 4e7);
}

TEST(NetworksInTheFile, FaultsNameTheirPlace)
{
    for (const auto& [from, to, path] : {std::tuple("\"impedance_ohm\":450", "\"impedance_ohm\":-3", "lines[0].impedance_ohm"),
                                         std::tuple("\"end\":\"open\"", "\"end\":\"loose\"", "lines[1].end"),
                                         std::tuple("\"ratio\":4", "\"ratio\":0", "feeds[0].transformer.ratio"),
                                         std::tuple("{\"wire\":\"b\",\"at_m\":5}", "{\"wire\":\"b\",\"at_m\":50}", "lines[0].to.at_m")}) {
        std::string text = file;
        text.replace(text.find(from), std::string(from).size(), to);
        const auto read = files::parseWireFile(text);
        ASSERT_FALSE(read) << path;
        EXPECT_EQ(read.faults().front().path, path);
    }
}

} // namespace
} // namespace vetchling::em
