#pragma once
/// Telescoping tubes: which sizes slide into one another, how much of each shows, and how far the whole droops under its own weight.

#include "core/result.h"

#include <vector>

namespace vetchling {

struct Tube {
    double outer = 0.025; ///< m
    double wall = 0.0016; ///< m
    double length = 1.0;  ///< m over all
    friend bool operator==(const Tube&, const Tube&) = default;
};

struct TubeFit {
    double clearance = 0.0; ///< m between the inner tube and the bore it slides into
    bool slides = false, tooLoose = false;
};
/// Slides with 0.1 mm to spare or more; beyond 0.8 mm it rattles and wants a shim.
TubeFit fitOf(const Tube& outside, const Tube& inside);

/// How much of each tube shows when an element of some length is put together, thickest first; the thinnest takes what is left.
/// @param overlap m that each tube stands in the one before
/// Faults: no tubes, sizes that do not slide, an overlap that is longer than a tube, an element the tubes do not reach.
Result<std::vector<double>> tubesOut(const std::vector<Tube>& tubes, double element, double overlap);

struct TubeMaterial {
    double density = 2700.0; ///< kg/m3
    double modulus = 69e9;   ///< N/m2
};

/// A part of a cantilever as it counts: what shows of a tube.
struct TubeSpan {
    Tube tube;
    double shows = 0.0; ///< m
};

struct Droop {
    double tip = 0.0;    ///< m below where it is clamped
    double mass = 0.0;   ///< kg
    double moment = 0.0; ///< Nm at the clamp
};

/// Small bending of a stepped cantilever, level at its clamp: EI w'' = M, integrated exactly piece by piece (Euler and Bernoulli).
/// Overlaps are counted as the thicker tube alone. @param tipMass kg at the tip
Droop droopOf(const std::vector<TubeSpan>& spans, const TubeMaterial& material, double tipMass = 0.0);

/// Sizes at hand put together to an element: as few as reach, the thinnest at the tip.
struct TubeSet {
    std::vector<TubeSpan> spans; ///< thickest first
    double overlap = 0.0;        ///< m
    bool shims = false;          ///< some rattle without
};
/// @param atHand any order @param thickness m, of the element as it was modelled: the set's mean comes as near to that as it can.
/// Faults: nothing at hand that slides and reaches.
Result<TubeSet> tubeSetFor(double element, double thickness, const std::vector<Tube>& atHand, double overlap);

/// Pull in a brace that carries a weight: weight / sin a, tan a = rise / reach. Faults: a rise or a reach that is not above 0.
Result<double> braceTension(double weight, double rise, double reach);

} // namespace vetchling
