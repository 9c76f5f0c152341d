#pragma once
/// How an antenna that can be set is set for each band: telescopes, slides, taps, anchors, links.

#include "core/study/configurations.h"

#include <optional>
#include <string>
#include <vector>

namespace vetchling::study {

/// What is set: the lever that takes the antenna from band to band, and those that finish the match.
struct SettingLevers {
    std::string coarse;            ///< parameter; empty where only links are opened and closed
    std::vector<std::string> fine; ///< parameters; angles
};

struct SettingRow {
    Id band;
    double frequency = 0.0;    ///< Hz that it is set for
    shapes::Parameters values; ///< of the levers, SI; also where they are out of reach
    bool solved = false;       ///< else the coarse value is the rule's, being far out of reach
    bool reached = false;      ///< it can be set so
    double beyond = 0.0;       ///< SI, how far the coarse value lies past the reach, positive above it
    double slope = 0.0;        ///< Hz that the dip moves for one SI unit more of the coarse lever; 0: unknown
    Complex impedance;         ///< ohm at the line, at the frequency
    Coverage coverage;         ///< of the band, set so; of use where reached
    std::size_t configuration = 0;
};

struct SettingChart {
    SettingLevers levers;
    double shortest = 0.0, longest = 0.0; ///< of the coarse lever, where its reach is known; both 0 where it is not
    std::vector<SettingRow> rows;         ///< in the order of the bands
};

/// A telescope's length as whole sections pulled out, and the rest of the next one.
struct SectionsOut {
    int sections = 0;
    double rest = 0.0; ///< m
};
/// Nothing for what has no sections, or another lever. @param value of the coarse lever, SI
std::optional<SectionsOut> sectionsOut(const shapes::AntennaShape& shape, const std::string& parameter, double value);

/// What can be set on an antenna; nothing where all its lengths are cut.
std::optional<SettingLevers> settingLevers(const shapes::AntennaShape& shape);

/// All bands of the question; set for the middle of each, or of its wished segments. Faults: nothing can be set; stopped.
Result<SettingChart> settingsOf(Library& library, const Question& question, const Watch& watch = {});

} // namespace vetchling::study
