#include "tests/validation/svg_plot.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace vetchling::testing {
namespace {

constexpr double width = 640, height = 400, left = 70, right = 170, top = 40, bottom = 52;
const char* const inks[] = {"#2f5d50", "#b4532a", "#5b4a9c", "#8a6d1f", "#1f6f8a", "#8a1f4d"};

struct Axis {
    double low = HUGE_VAL, high = -HUGE_VAL; ///< decades

    void take(const std::vector<double>& values)
    {
        for (double v : values)
            if (v > 0.0)
                low = std::min(low, std::floor(std::log10(v) + 1e-9)), high = std::max(high, std::ceil(std::log10(v) - 1e-9));
    }
    void settle()
    {
        if (!(low < high))
            low = std::isfinite(low) ? low : 0.0, high = low + 1.0;
    }
    double part(double v) const { return (std::log10(v) - low) / (high - low); }
};

std::string tick(double decade)
{
    return decade >= -2 && decade <= 4 ? fmt::format("{:g}", std::pow(10.0, decade)) : fmt::format("1e{:g}", decade);
}

} // namespace

std::string svg(const Plot& plot)
{
    Axis x, y;
    for (const Series& s : plot.series)
        x.take(s.x), y.take(s.y);
    x.settle(), y.settle();
    const auto px = [&](double v) { return left + x.part(v) * (width - left - right); };
    const auto py = [&](double v) { return height - bottom - y.part(v) * (height - top - bottom); };
    std::string out =
        fmt::format("<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"{0}\" height=\"{1}\" viewBox=\"0 0 {0} {1}\" "
                    "font-family=\"Lato, sans-serif\" font-size=\"12\">\n<rect width=\"{0}\" height=\"{1}\" fill=\"#fdfcf8\"/>\n",
                    width, height);
    const auto text = [&](double tx, double ty, const std::string& words, const char* anchor, const std::string& more = {}) {
        out += fmt::format("<text x=\"{:.1f}\" y=\"{:.1f}\" text-anchor=\"{}\" fill=\"#333\"{}>{}</text>\n", tx, ty, anchor, more, words);
    };
    const auto line = [&](double x0, double y0, double x1, double y1, const char* ink) {
        out += fmt::format("<line x1=\"{:.1f}\" y1=\"{:.1f}\" x2=\"{:.1f}\" y2=\"{:.1f}\" stroke=\"{}\"/>\n", x0, y0, x1, y1, ink);
    };
    text(left, 22, plot.title, "start", " font-size=\"14\" font-weight=\"bold\"");
    for (double d = x.low; d <= x.high; ++d) {
        line(px(std::pow(10.0, d)), top, px(std::pow(10.0, d)), height - bottom, "#ddd8cc");
        text(px(std::pow(10.0, d)), height - bottom + 16, tick(d), "middle");
    }
    for (double d = y.low; d <= y.high; ++d) {
        line(left, py(std::pow(10.0, d)), width - right, py(std::pow(10.0, d)), "#ddd8cc");
        text(left - 6, py(std::pow(10.0, d)) + 4, tick(d), "end");
    }
    text(0.5 * (left + width - right), height - 14, plot.xTitle, "middle");
    text(18, 0.5 * (top + height - bottom), plot.yTitle, "middle",
         fmt::format(" transform=\"rotate(-90 18 {:.1f})\"", 0.5 * (top + height - bottom)));
    if (plot.diagonal) {
        const double low = std::pow(10.0, std::max(x.low, y.low)), high = std::pow(10.0, std::min(x.high, y.high));
        line(px(low), py(low), px(high), py(high), "#999");
    }
    for (std::size_t s = 0; s < plot.series.size(); ++s) {
        const Series& series = plot.series[s];
        const char* ink = inks[s % std::size(inks)];
        std::string path;
        for (std::size_t i = 0; i < series.x.size(); ++i) {
            if (!(series.x[i] > 0.0 && series.y[i] > 0.0))
                continue;
            path += fmt::format("{:.1f},{:.1f} ", px(series.x[i]), py(series.y[i]));
            out += fmt::format("<circle cx=\"{:.1f}\" cy=\"{:.1f}\" r=\"2.6\" fill=\"{}\" fill-opacity=\"{}\"/>\n", px(series.x[i]),
                               py(series.y[i]), ink, series.joined ? 1.0 : 0.55);
        }
        if (series.joined)
            out += fmt::format("<polyline points=\"{}\" fill=\"none\" stroke=\"{}\" stroke-width=\"1.5\"/>\n", path, ink);
        text(width - right + 14, top + 14 + 18.0 * double(s), series.name, "start", fmt::format(" style=\"fill:{}\"", ink));
    }
    return out + "</svg>\n";
}

} // namespace vetchling::testing
