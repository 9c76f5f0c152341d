#include "core/shapes/bands_of_shape.h"

#include <cmath>

namespace vetchling::shapes {
namespace {

constexpr double bandBelow = 0.706; // of the frequency of the band before

using Texts = std::array<const char*, mostBands>;

constexpr Texts frequencyLabels = {coreText("core", "First band"),  coreText("core", "Second band"), coreText("core", "Third band"),
                                   coreText("core", "Fourth band"), coreText("core", "Fifth band"),  coreText("core", "Sixth band")};
constexpr Texts legNames = {coreText("core", "each side, innermost"),  coreText("core", "each side, second band"),
                            coreText("core", "each side, third band"), coreText("core", "each side, fourth band"),
                            coreText("core", "each side, fifth band"), coreText("core", "each side, sixth band")};
constexpr Texts lengthNames = {coreText("core", "of wire, innermost"),  coreText("core", "of wire, second band"),
                               coreText("core", "of wire, third band"), coreText("core", "of wire, fourth band"),
                               coreText("core", "of wire, fifth band"), coreText("core", "of wire, sixth band")};
constexpr Texts lengthLabels = {coreText("core", "Wire, innermost"),  coreText("core", "Wire, second band"),
                                coreText("core", "Wire, third band"), coreText("core", "Wire, fourth band"),
                                coreText("core", "Wire, fifth band"), coreText("core", "Wire, sixth band")};

std::string keyOf(const char* stem, int band) { return std::string(stem) + (band == 1 ? "" : "_" + std::to_string(band)) + "_m"; }

} // namespace

const Texts legLabels = {coreText("core", "A side, innermost"),  coreText("core", "A side, second band"),
                         coreText("core", "A side, third band"), coreText("core", "A side, fourth band"),
                         coreText("core", "A side, fifth band"), coreText("core", "A side, sixth band")};
const Texts legSections = {coreText("core", "first section"),  coreText("core", "second section"), coreText("core", "third section"),
                           coreText("core", "fourth section"), coreText("core", "fifth section"),  coreText("core", "sixth section")};

std::string legKey(int band) { return keyOf("leg", band); }
std::string lengthKey(int band) { return keyOf("length", band); }
std::string frequencyKey(int band) { return "frequency_" + std::to_string(band) + "_Hz"; }

void addBands(std::vector<ParameterSpec>& all, int bands, double halfWaves, const PathNames& names)
{
    all.push_back(numberSpec("band_count", coreText("core", "Bands"), lengthGroup, {2.0, 2.0, double(mostBands)},
                             coreText("core", "with a link between each and the next")));
    for (int band = 2; band <= bands; ++band) {
        const double ratio = std::pow(bandBelow, band - 1);
        const std::size_t i = std::size_t(band - 1);
        all.push_back(frequencySpec(frequencyKey(band), frequencyLabels[i], lengthGroup, ratio));
        all.push_back(lengthSpec(names.key(band), names.oneSide ? lengthLabels[i] : legLabels[i], lengthGroup, {15.0, 0.02, 5000.0},
                                 coreText("core", "the whole path to the open end of this band"), halfWaves / ratio));
    }
}

std::vector<TunedLength> bandLengths(const Family& family, const AntennaShape& shape, int bands, const PathNames& names)
{
    std::vector<TunedLength> all;
    for (int band = 1; band <= bands; ++band) {
        const std::size_t i = std::size_t(band - 1);
        all.push_back({names.key(band), names.oneSide ? coreText("core", "of wire") : coreText("core", "a side"),
                       band == 1 ? shape.designFrequency : family.value(shape, frequencyKey(band)), i});
    }
    return all;
}

std::vector<Configuration> bandConfigurations(const Family& family, const AntennaShape& shape, int bands)
{
    std::vector<Configuration> all;
    for (const TunedLength& t : bandLengths(family, shape, bands))
        all.push_back({units::formatFrequency(t.frequency), t.frequency});
    return all;
}

std::vector<Lever> bandLevers(const Family& family, const AntennaShape& shape, int pieces)
{
    std::vector<Lever> all;
    for (const TunedLength& t : family.tuned(shape))
        all.push_back({t.parameter, (pieces == 1 ? lengthNames : legNames)[t.configuration], LeverKind::Cut, LeverSide::OpenEnd, pieces});
    return all;
}

AntennaShape bandLevered(const Family& family, const AntennaShape& shape, int bands, const std::string& key, double value,
                         const PathNames& names)
{
    AntennaShape next = shape;
    const double longer = value - family.value(shape, key);
    bool reached = false;
    for (int band = 1; band <= bands; ++band) {
        reached = reached || names.key(band) == key;
        if (reached)
            next.parameters[names.key(band)] = family.value(shape, names.key(band)) + longer;
    }
    next.parameters[key] = value;
    return next;
}

std::vector<Text> sectionRemarks(const std::vector<double>& paths, double gap)
{
    std::vector<Text> all;
    for (std::size_t i = 0; i < paths.size(); ++i) {
        const double section = i == 0 ? paths[0] : paths[i] - paths[i - 1] - gap;
        const Measure length{section, units::Quantity::Length};
        all.push_back(i == 0                  ? Text(coreText("core", "from the feed %1 to the first link"), length)
                      : i + 1 == paths.size() ? Text(coreText("core", "from the last link %1 to the end"), length)
                                              : Text(coreText("core", "then %1 to the next link"), length));
    }
    return all;
}

Result<std::vector<double>> bandPaths(const Family& family, const AntennaShape& shape, int bands, double gap, const PathNames& names)
{
    std::vector<double> paths;
    for (int band = 1; band <= bands; ++band) {
        const double path = family.value(shape, names.key(band));
        if (band > 1 && path < 1.001 * (paths.back() + gap))
            return Fault{names.key(band),
                         {coreText("core", "%1 does not reach beyond the link before it at %2; make it longer or exchange the bands"),
                          Measure{path, units::Quantity::Length}, Measure{paths.back(), units::Quantity::Length}}};
        paths.push_back(path);
    }
    return paths;
}

} // namespace vetchling::shapes
