#pragma once
/// Plain plots on logarithmic axes for the validation page.

#include <string>
#include <vector>

namespace vetchling::testing {

struct Series {
    std::string name;
    std::vector<double> x, y;
    bool joined = true; ///< a line with dots, or dots alone
};

struct Plot {
    std::string title, xTitle, yTitle;
    std::vector<Series> series;
    bool diagonal = false; ///< draws y = x
};

/// A whole SVG file, 640 x 400. Points that are not positive are left out.
std::string svg(const Plot& plot);

} // namespace vetchling::testing
