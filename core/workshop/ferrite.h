#pragma once
/// Chokes and transformers wound on ferrite rings, from the complex permeability of a class of ferrite.
///
/// Classes are told by their initial permeability; figures of one maker's mix differ by a third and more, so each result says how sure it
/// is. A class without a table of its own follows one relaxation, mu = 1 + (mu_i - 1) / (1 + j f / f_r), with Snoek's limit
/// f_r (mu_i - 1) = gamma mu0 Ms / (3 pi) (Snoek, Physica 14 (1948) 207): 5.6 GHz for nickel-zinc (NiZn); 4 GHz is taken for manganese-zinc
/// (MnZn), whose eddy currents lower it. A ring of height h has mu0 mu N^2 h ln(od/id) / 2 pi. Heat it gets rid of: 10 W per m2 and kelvin
/// from its surface in still air.

#include "core/bands/bands.h"
#include "core/physics.h"
#include "core/result.h"

#include <array>
#include <string>
#include <vector>

namespace vetchling {

struct FerriteClass {
    std::string id, name, source;
    double initial = 850.0;    ///< relative permeability at low frequency
    double saturation = 0.3;   ///< T
    double snoek = 5.6e9;      ///< Hz, f_r (mu_i - 1)
    double uncertainty = 0.35; ///< part of the impedance
    struct Row {
        double frequency = 0.0, real = 1.0, imaginary = 0.0;
        friend bool operator==(const Row&, const Row&) = default;
    };
    std::vector<Row> table; ///< rising; empty: by Snoek's limit. Between rows logarithmic, beyond them as the last one

    /// mu' - j mu''.
    [[nodiscard]] Complex permeability(double frequency) const;
    friend bool operator==(const FerriteClass&, const FerriteClass&) = default;
};

struct FerriteRing {
    std::string id, name;
    double outer = 0.036, inner = 0.023, height = 0.015; ///< m

    /// H for one turn and a relative permeability of 1.
    [[nodiscard]] double perTurn() const;
    [[nodiscard]] double crossSection() const { return 0.5 * (outer - inner) * height; } ///< m2
    [[nodiscard]] double surface(int rings) const;                                       ///< m2, of a stack
    friend bool operator==(const FerriteRing&, const FerriteRing&) = default;
};

inline constexpr double allowedWarming = 40.0; ///< K above the air

/// W that a stack of rings gets rid of at the allowed warming.
double allowedHeat(const FerriteRing& ring, int rings);

/// A coax or pair of wires wound through a stack of rings.
struct CoreChoke {
    FerriteClass ferrite;
    FerriteRing ring;
    int rings = 1, turns = 11;

    /// F from end to end of the winding: 0.5 pF and 0.06 pF per turn and cm of ring, an estimate within a factor of 2.
    [[nodiscard]] double capacitance() const;
    /// Ohm for current on the outside.
    [[nodiscard]] Complex impedance(double frequency) const;
    /// A rms that it stands for ever at a frequency.
    [[nodiscard]] double allowedCurrent(double frequency) const;
};

struct ChokePoint {
    double frequency = 0.0;
    Complex impedance;
};
/// At places that are even on a logarithmic axis.
std::vector<ChokePoint> chokeCurve(const CoreChoke& choke, double from, double to, int count);
/// The least that it chokes with at the edges of bands, ohm, and on which of them; 0 without any.
struct LeastChoking {
    double ohm = 0.0;
    std::size_t band = 0;
};
LeastChoking leastChoking(const CoreChoke& choke, const std::vector<Band>& bands);

/// Turns on the line's side of a transformer.
struct CoreTransformer {
    FerriteClass ferrite;
    FerriteRing ring;
    int rings = 1, turns = 2;

    /// Ohm across the line that the winding draws current through.
    [[nodiscard]] Complex magnetising(double frequency) const;
    /// W lost in the core, a power going through into a matched line impedance.
    [[nodiscard]] double coreHeat(double frequency, double power, double line = 50.0) const;
    /// T, peak.
    [[nodiscard]] double flux(double frequency, double power, double line = 50.0) const;
    /// Turns from which the winding's impedance is `times` the line's.
    [[nodiscard]] int leastTurns(double frequency, double times = 5.0, double line = 50.0) const;
};

/// R, L and C side by side that are nearest to a choke's impedance between two frequencies: what a feed line's choke is told by.
struct ChokeModel {
    double resistance = 0.0, inductance = 0.0, capacitance = 0.0;
    [[nodiscard]] Complex impedance(double frequency) const;
};
ChokeModel modelOf(const CoreChoke& choke, double from, double to);

} // namespace vetchling
