#pragma once
/// Long random tests: whatever goes in, out comes a finite result or an error in words.

#include <functional>
#include <string>

namespace vetchling::testing {

struct FuzzCount {
    long tried = 0, answered = 0, refused = 0;
    std::string broken; ///< the first offence with its seed; empty: none
};

/// Random wire models, most of them wrong somewhere, checked and solved.
FuzzCount fuzzModels(unsigned first, unsigned count);
/// Wire files with random bytes changed, cut and doubled.
FuzzCount fuzzWireFiles(const std::string& seedText, unsigned first, unsigned count);
/// The same for designs; what is read of one and written is read and written the same again.
FuzzCount fuzzDesigns(const std::string& seedText, unsigned first, unsigned count);
/// One value of a design damaged: the rest opens, and saving it changes nothing else.
FuzzCount fuzzDamage(const std::string& seedText, unsigned first, unsigned count);

/// Sweeps in Touchstone and CSV of many forms, readings as typed, and what instruments are asked, all with bytes changed.
FuzzCount fuzzMeasured(unsigned first, unsigned count);

} // namespace vetchling::testing
