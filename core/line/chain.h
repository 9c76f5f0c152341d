#pragma once
/// A chain of parts from the antenna's port to the radio, worked out part by part for the impedances that really meet them.

#include "core/line/parts.h"
#include "core/line/transformer.h"

#include <functional>

namespace vetchling {

/// What is found on the radio's side of a part.
struct Joint {
    Complex impedance;      ///< ohm, towards the antenna
    double loss = 0.0;      ///< dB in this part: power in over power out
    double share = 1.0;     ///< of the power into the whole chain that enters this part; what is lost in it is share (1 - 10^(-loss/10))
    double volts = 0.0;     ///< V peak on its radio side for 1 W into the whole chain; grows with the root of the power
    double amperes = 0.0;   ///< A peak
    double mostVolts = 0.0; ///< V peak anywhere on it, both ends included, for 1 W into the chain
    std::vector<NetworkSolution> solutions; ///< of a tuner
    std::optional<Text> refused;            ///< why a tuner does not tune
    [[nodiscard]] double lost() const;      ///< part of the power into the chain
};

struct ChainState {
    double frequency = 0.0;                    ///< Hz
    Complex load;                              ///< ohm at the antenna's port
    double portVolts = 0.0, portAmperes = 0.0; ///< V, A peak at the port for 1 W into the chain
    std::vector<Joint> joints;                 ///< of the parts, in their order
    [[nodiscard]] double totalLoss() const;    ///< dB
    [[nodiscard]] double efficiency() const;   ///< power into the antenna over power into the chain
    /// What the radio sees.
    [[nodiscard]] Complex impedance() const { return joints.empty() ? load : joints.back().impedance; }
    /// A tuner that does not tune, by its place among the parts.
    [[nodiscard]] const Joint* refusal() const;
};

/// @param parts from the antenna to the radio @param load ohm with a resistance above 0
ChainState chainAt(const std::vector<ChainPart>& parts, Complex load, double frequency);

/// What matters of a chain where nobody asks part by part: a small part of the work of chainAt.
struct Through {
    Complex impedance; ///< ohm behind all parts
    double loss = 0.0; ///< dB
};
Through throughChain(const std::vector<ChainPart>& parts, Complex load, double frequency);

/// Impedance behind all parts, ohm; a tuner in the radio itself is left out, being behind its socket.
Complex atSocket(const std::vector<ChainPart>& parts, Complex load, double frequency);
/// The same for many frequencies.
class Socket {
public:
    enum class End { Radio, BehindTuner }; ///< of what is looked into: the radio's socket, or behind a tuner in the radio too
    explicit Socket(const std::vector<ChainPart>& parts, End end = End::Radio);
    [[nodiscard]] Complex seen(Complex load, double frequency) const;

private:
    std::vector<std::function<Complex(Complex load, double frequency)>> m_parts;
};

/// What an antenna has at its port of its own, as parts: its line, then its transformer. A ratio of 1 without loss is none.
std::vector<ChainPart> ownParts(const std::optional<Transformer>& transformer);
/// Puts a tuner elsewhere: it copes with what is usual there, a separate one with no less than it did.
void putTuner(ChainPart& tuner, part::TunerPlace place);
/// Says of every tuner where it stands by its place in the chain: before the first line at the antenna, behind it indoors, or in the radio
/// where it said so and is the last part.
void settleTuners(std::vector<ChainPart>& parts);
/// How many of the first parts belong to the feedpoint: those before the first line, tuner or meter.
std::size_t feedpointParts(const std::vector<ChainPart>& parts);

/// The reflection along one part from its antenna side to its radio side: against a reference, ohm; a line in small steps, anything else
/// at its two ends.
std::vector<Complex> wayThrough(const ChainPart& part, Complex load, double frequency, double reference);
/// (Z - R)/(Z + R).
inline Complex reflection(Complex impedance, double reference) { return (impedance - reference) / (impedance + reference); }

/// Takes the place of a part's loss by the least or the most it may be, where a range is given; as it is else.
enum class Guess { Least, Told, Most };
std::vector<ChainPart> guessed(std::vector<ChainPart> parts, Guess guess);
/// Whether any part's loss is a range.
bool isGuess(const std::vector<ChainPart>& parts);

} // namespace vetchling
