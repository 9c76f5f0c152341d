#pragma once
/// A coil of an antenna as something to wind: the turns, what each of them does to the dip, what the winding loses, and other windings.

#include "core/design/design.h"
#include "core/study/answers.h"
#include "core/workshop/winding.h"

namespace vetchling::study {

/// Keys of the parameters that are inductances of coils to be wound, those above 0.
std::vector<std::string> coilsOf(const shapes::AntennaShape& shape);

struct CoilQuestion {
    Question question; ///< on its own band
    std::string key;   ///< of the parameter
    Winding winding;
    double turnsAtHand = 0.0; ///< of a coil that is wound already on that former; 0: none
    friend bool operator==(const CoilQuestion&, const CoilQuestion&) = default;
};

CoilQuestion coilQuestionOf(const Design& design, const Antenna& antenna, const std::string& key, std::size_t configuration);

struct CoilAnswer {
    std::string key;
    double inductance = 0.0, frequency = 0.0; ///< H, Hz
    Wound wound;
    std::vector<Wound> beside;
    double perHenry = 0.0; ///< Hz that the dip moves for one more
    double perLever = 0.0; ///< Hz for one more SI unit of the antenna's first lever, each piece
    shapes::Lever lever;
    double lost = 0.0;                 ///< part of the power that all loads lose with the Q the model has
    double assumedQ = 0.0;             ///< 0: the model has none
    bool hasSize = false;              ///< the model's coil may have one
    CoilSize size;                     ///< that it has; in a point otherwise
    std::optional<CoilFigures> atHand; ///< of the coil that is wound already
    double atHandInductance = 0.0;     ///< H of it at the frequency, with its leads
    /// What the model's coil would have as it is wound; in a point where it is too short (coil_limits.h).
    [[nodiscard]] CoilSize sizeWound() const;
    /// Part of the power that a winding's coils would lose.
    [[nodiscard]] double lostWith(const Wound& w) const
    {
        return assumedQ > 0.0 && w.figures.q > 0.0 ? lost * assumedQ / w.figures.q : lost;
    }
};

/// Faults: what cannot be built or solved; stopped.
Result<CoilAnswer> coilAnswer(Library& library, const CoilQuestion& asked, const Watch& watch = {});

} // namespace vetchling::study
