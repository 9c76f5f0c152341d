#pragma once
/// The kinds of parts between the antenna's port and the radio. A kind is one .cpp file and one line in parts.cpp; nothing outside this
/// room knows any one of them but by its id.

#include "core/line/chain_part.h"
#include "core/line/two_port.h"
#include "core/result.h"

#include <functional>
#include <optional>
#include <string>
#include <vector>

namespace vetchling {

/// Texts are English, marked for translation with coreText.
struct PartSpec {
    std::string key, label;
    units::Quantity quantity = units::Quantity::Plain;
    double standard = 0.0, lowest = 0.0, highest = 0.0;
    std::vector<std::string> choices; ///< words for 0, 1, 2 ...; empty for a number
    std::string help;
};

/// One of two reactances of a matching network.
struct Reactance {
    bool inductor = true;
    double value = 0.0; ///< H or F
};

/// One way in which a two-element network makes the wanted resistance of an impedance.
struct NetworkSolution {
    bool shuntAtLoad = true; ///< else the series element is
    Reactance shunt, series;
    double loss = 0.0; ///< dB
};

/// What a part makes of an impedance.
struct Passed {
    Complex impedance;                      ///< ohm, on the radio's side
    double efficiency = 1.0;                ///< power out to the antenna's side over power in
    std::vector<NetworkSolution> solutions; ///< of a tuner, least loss first
    std::optional<Text> refused;            ///< why a tuner does not tune: it then lets everything pass as it is
};

class PartKind {
public:
    virtual ~PartKind() = default;
    [[nodiscard]] virtual std::string id() const = 0;
    [[nodiscard]] virtual std::string name() const = 0; ///< "transformer"
    [[nodiscard]] virtual std::string help() const = 0; ///< a sentence on what it is for
    [[nodiscard]] virtual const std::vector<PartSpec>& specs() const = 0;
    /// It does not adjust itself, so it is the same for every load.
    [[nodiscard]] virtual bool fixed() const { return true; }
    /// It belongs to the feedpoint where no line comes before it.
    [[nodiscard]] virtual bool atFeedpoint() const { return false; }
    /// Its matrix, where it is fixed.
    [[nodiscard]] virtual TwoPort at(const ChainPart& part, double frequency) const = 0;
    /// The same for many frequencies: what does not change with them is looked up once.
    [[nodiscard]] virtual std::function<TwoPort(double)> prepared(const ChainPart& part) const;
    [[nodiscard]] virtual Passed pass(const ChainPart& part, Complex load, double frequency) const;
    /// Beyond the limits of its values.
    [[nodiscard]] virtual Faults faults(const ChainPart&) const { return {}; }

    /// The part's value, or its standard one; 0 where the kind has no such key.
    [[nodiscard]] double value(const ChainPart& part, const std::string& key) const;
    /// Null where the kind has no such key.
    [[nodiscard]] const PartSpec* spec(const std::string& key) const;
};

/// In the order they are offered.
const std::vector<const PartKind*>& partKinds();
/// Null if there is none of that id.
const PartKind* findPartKind(const std::string& id);
/// The part's kind; one that lets everything pass where this program does not know it.
const PartKind& kindOf(const ChainPart& part);
/// The part's value, or its kind's standard one.
double partValue(const ChainPart& part, const std::string& key);
/// What is wrong with a part, by key.
Faults findPartFaults(const ChainPart& part);

/// A loss that leaves the impedance as it is. @param loss dB
TwoPort plainLoss(double loss);
/// dB of the part at a frequency: its table, straight between its points and level beyond them, else "loss_dB".
double statedLoss(const ChainPart& part, double frequency);
/// Matrix of a line. @param z ohm @param k1, k2 dB per 100 m: k1 sqrt(f/MHz) + k2 f/MHz
TwoPort lineAt(Complex z, double length, double velocityFactor, double k1, double k2, double frequency);

/// Both ways to make `to` ohm of a load with a shunt and a series element of finite Q (Pozar 2011, sec. 5.1, with the elements' series
/// resistances |X|/Q solved for), least loss first, of equal ones the one with its series element at the load. Empty where there is none:
/// no resistance in the load.
std::vector<NetworkSolution> networksFor(Complex load, double to, double frequency, double inductorQ, double capacitorQ);

/// Impedance of a choke for current on the outside of the line, ohm: its resistance, coil and capacitance side by side; nothing where
/// only its loss is known.
std::optional<Complex> chokingImpedance(const ChainPart& part, double frequency);

/// Keys and kinds that the program itself looks for.
namespace part {
inline constexpr const char *transformer = "transformer", *choke = "choke", *line = "line", *section = "section", *stub = "stub",
                            *network = "network", *tuner = "tuner", *attenuator = "attenuator", *meter = "meter", *lump = "loss";
enum TunerPlace { inRadio = 0, indoors = 1, atAntenna = 2 };
} // namespace part

} // namespace vetchling
