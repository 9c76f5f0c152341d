#pragma once
/// Sweeps that an instrument wrote: Touchstone of one port in all its forms, and CSV with any columns.

#include "core/design/measured_sweep.h"
#include "core/result.h"

#include <string>
#include <vector>

namespace vetchling::files {

/// Versions 1 and 2: Hz to GHz; S, Z or Y; real and imaginary, magnitude and angle, or dB and angle; any reference. Of two ports S11 is
/// taken. Faults: what is no such file, more ports, Z or Y of two; frequencies that go to and fro; with the line.
Result<MeasuredSweep> parseTouchstone(const std::string& text);

/// What a column of a CSV holds.
enum class Column { Unknown, Frequency, Resistance, Reactance, Magnitude, Swr, ReturnLoss, GammaReal, GammaImaginary };
struct CsvLayout {
    std::vector<Column> columns;
    double hertz = 1.0; ///< Hz that the frequency column counts in
    char separator = ',';
    bool decimalComma = false;
    std::size_t firstRow = 0; ///< line that numbers begin in
};
/// As the headings and the first numbers say; a column that says nothing is Unknown.
CsvLayout guessCsv(const std::string& text);
/// The first line whose frequency column holds a number; the number of lines where none does.
std::size_t firstRowOf(const std::string& text, const CsvLayout& layout);
/// Faults: no frequency, or nothing beside it; a line with too few numbers; frequencies that go to and fro.
Result<MeasuredSweep> parseCsv(const std::string& text, const CsvLayout& layout);

/// By its ending, .s1p or .s2p.
bool isTouchstone(const std::string& path);
/// Touchstone by its ending, all else CSV as guessed.
Result<MeasuredSweep> readMeasured(const std::string& path);

} // namespace vetchling::files
