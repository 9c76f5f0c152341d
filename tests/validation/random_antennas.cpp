#include "tests/validation/random_antennas.h"

#include "tests/validation/dice.h"

#include <array>
#include <cmath>
#include <functional>
#include <limits>

namespace vetchling::testing {
namespace {

/// Builds in wavelengths, so that every kind is sensible at every frequency.
class Maker {
public:
    explicit Maker(unsigned seed) : m_dice(seed)
    {
        m_out.frequency = m_dice.chance(0.8) ? m_dice.logBetween(1.8e6, 30e6) : m_dice.logBetween(50e6, 450e6);
        m_wavelength = speedOfLight / m_out.frequency;
        ground();
        m_radius = m_wavelength * m_dice.logBetween(1e-6, 1e-3);
    }

    RandomAntenna run()
    {
        static const std::array<std::pair<const char*, void (Maker::*)()>, 14> kinds{{{"dipole", &Maker::straight},
                                                                                      {"thick tube", &Maker::thickTube},
                                                                                      {"inverted V", &Maker::invertedV},
                                                                                      {"bent end-fed", &Maker::endFed},
                                                                                      {"loop", &Maker::loop},
                                                                                      {"vertical with radials", &Maker::vertical},
                                                                                      {"folded dipole", &Maker::folded},
                                                                                      {"fan", &Maker::fan},
                                                                                      {"coil-loaded", &Maker::loaded},
                                                                                      {"acute bend", &Maker::acute},
                                                                                      {"tapered tube", &Maker::tapered},
                                                                                      {"zigzag", &Maker::zigzag},
                                                                                      {"two elements", &Maker::parasitic},
                                                                                      {"long wire", &Maker::longWire}}};
        const auto& [name, make] = kinds[std::size_t(m_dice.whole(0, int(kinds.size()) - 1))];
        m_out.kind = name;
        (this->*make)();
        materials();
        return std::move(m_out);
    }

private:
    void ground()
    {
        Ground& g = m_out.model.ground;
        const double which = m_dice.unit();
        g.kind = which < 0.15 ? GroundKind::FreeSpace : which < 0.25 ? GroundKind::Perfect : GroundKind::Real;
        if (g.kind == GroundKind::Real) {
            g.relativePermittivity = m_dice.logBetween(1.2, 90.0);
            g.conductivity = m_dice.chance(0.1) ? 5.0 : m_dice.logBetween(1e-4, 0.1);
        }
    }

    void materials()
    {
        const double conductivity = m_dice.chance(0.5) ? 5.8e7 : m_dice.logBetween(1e6, 6e7);
        const bool coated = m_dice.chance(0.2);
        for (Wire& w : m_out.model.wires) {
            w.conductivity = conductivity;
            if (coated && !w.endRadius)
                w.insulation = Insulation{w.radius * 1.8, 2.3, 0.001};
        }
    }

    double height() { return m_wavelength * m_dice.logBetween(0.003, 1.0) + 2.0 * m_radius; }

    Wire& add(std::vector<Vec3> points)
    {
        Wire w;
        w.id = "w" + std::to_string(m_out.model.wires.size());
        w.radius = m_radius;
        w.points = std::move(points);
        m_out.model.wires.push_back(std::move(w));
        return m_out.model.wires.back();
    }

    void feed(std::size_t wire, double at) { m_out.model.feeds.push_back({wire, at, 1.0}); }
    Vec3 turned(double x, double y, double angle, double z) const
    {
        return {x * std::cos(angle) - y * std::sin(angle), x * std::sin(angle) + y * std::cos(angle), z};
    }

    void straight()
    {
        const double half = 0.5 * m_wavelength * m_dice.between(0.3, 2.2), slope = m_dice.chance(0.3) ? m_dice.between(0.0, 1.5) : 0.0;
        const double z = height() + half * std::sin(slope);
        const Vec3 arm{half * std::cos(slope), 0.0, half * std::sin(slope)};
        add({Vec3{0, 0, z} - arm, Vec3{0, 0, z} + arm});
        feed(0, 2.0 * half * m_dice.between(0.2, 0.8));
    }

    void thickTube()
    {
        m_radius = m_wavelength * m_dice.logBetween(1e-3, 0.02);
        const double half = 0.5 * m_wavelength * m_dice.between(0.4, 1.3), z = 0.3 * m_wavelength;
        add({{-half, 0, z}, {half, 0, z}});
        feed(0, half);
    }

    void invertedV()
    {
        const double leg = m_wavelength * m_dice.between(0.15, 0.9), droop = m_dice.between(0.1, 1.2), z = height() + leg * std::sin(droop);
        const double across = leg * std::cos(droop);
        add({{-across, 0, z - leg * std::sin(droop)}, {0, 0, z}, {across, 0, z - leg * std::sin(droop)}});
        feed(0, leg);
    }

    void endFed()
    {
        const double z = height(), whole = m_wavelength * m_dice.between(0.4, 1.6), first = whole * m_dice.between(0.3, 0.7);
        const double rise = std::min(first * 0.9, m_wavelength * m_dice.between(0.0, 0.2)), level = std::sqrt(first * first - rise * rise);
        const double angle = m_dice.between(-2.0, 2.0), counterpoise = m_wavelength * m_dice.between(0.02, 0.2);
        add({{-counterpoise, 0.0, z},
             {0, 0, z},
             {level, 0, z + rise},
             {level + (whole - first) * std::cos(angle), (whole - first) * std::sin(angle), z + rise}});
        feed(0, counterpoise);
    }

    void loop()
    {
        const int sides = m_dice.whole(3, 8);
        const double around = m_wavelength * m_dice.between(0.3, 2.1), r = around / (2.0 * sides * std::sin(pi / sides));
        const bool upright = m_dice.chance(0.6);
        const double z = height() + (upright ? r : 0.0), start = m_dice.between(0.0, 6.0);
        std::vector<Vec3> points;
        for (int i = 0; i <= sides; ++i) {
            const double a = start + 2.0 * pi * (i % sides) / sides;
            points.push_back(upright ? Vec3{r * std::cos(a), 0, z + r * std::sin(a)} : Vec3{r * std::cos(a), r * std::sin(a), z});
        }
        add(points);
        feed(0, around * m_dice.between(0.0, 0.9));
    }

    void vertical()
    {
        const double up = m_wavelength * m_dice.between(0.1, 0.7);
        if (m_out.model.ground.kind == GroundKind::Perfect) {
            add({{0, 0, 0}, {0, 0, up}});
            feed(0, 0.0);
            return;
        }
        const double base = std::max(2.0 * m_radius, m_wavelength * m_dice.logBetween(2e-4, 0.2));
        add({{0, 0, base}, {0, 0, base + up}});
        feed(0, 0.0);
        const int radials = m_dice.whole(2, 8);
        const double length = m_wavelength * m_dice.between(0.1, 0.35);
        for (int i = 0; i < radials; ++i)
            add({{0, 0, base}, turned(length, 0.0, 2.0 * pi * i / radials, base)});
    }

    void folded()
    {
        const double half = 0.5 * m_wavelength * m_dice.between(0.3, 0.6), z = height(), apart = m_radius * m_dice.logBetween(4.0, 60.0);
        add({{-half, 0, z}, {half, 0, z}, {half, apart, z}, {-half, apart, z}, {-half, 0, z}});
        feed(0, half);
    }

    void fan()
    {
        const double z = height() + 0.05 * m_wavelength, gap = 0.01 * m_wavelength;
        add({{-gap, 0, z}, {gap, 0, z}});
        feed(0, gap);
        const int pairs = m_dice.whole(2, 4);
        for (int i = 0; i < pairs; ++i) {
            const double arm = m_wavelength * m_dice.between(0.1, 0.5), angle = 0.12 * (i + 1), drop = 0.03 * m_wavelength * i;
            for (double side : {-1.0, 1.0})
                add({{side * gap, 0, z}, {side * (gap + arm * std::cos(angle)), arm * std::sin(angle), std::max(z - drop, 0.3 * z)}});
        }
    }

    void loaded()
    {
        straight();
        const double length = m_out.model.wires[0].length(), w = 2.0 * pi * m_out.frequency;
        for (double at : {0.15, 0.85})
            m_out.model.loads.push_back({0, at * length, LoadKind::Series, 0.0, m_dice.between(50.0, 600.0) / w, 0.0, 200.0});
    }

    void acute()
    {
        const double z = height(), leg = m_wavelength * m_dice.between(0.2, 0.6), angle = radians(m_dice.between(10.0, 50.0));
        const double second = leg * m_dice.between(0.4, 1.0);
        add({{0, 0, z}, {leg, 0, z}, {leg - second * std::cos(angle), second * std::sin(angle), z}});
        feed(0, leg * m_dice.between(0.3, 0.8));
    }

    void tapered()
    {
        m_radius = m_wavelength * m_dice.logBetween(2e-4, 3e-3);
        const double half = 0.5 * m_wavelength * m_dice.between(0.4, 0.7), z = 0.2 * m_wavelength + height();
        add({{-half, 0, z}, {0, 0, z}}).endRadius = m_radius;
        add({{0, 0, z}, {half, 0, z}}).endRadius = m_radius * m_dice.between(0.3, 1.0);
        m_out.model.wires[0].radius = *m_out.model.wires[1].endRadius;
        feed(1, 0.0);
    }

    void zigzag()
    {
        std::vector<Vec3> points{{0, 0, height()}};
        const int pieces = m_dice.whole(2, 7);
        double total = 0.0;
        for (int i = 0; i < pieces; ++i) {
            const double step = m_wavelength * m_dice.between(0.05, 0.3);
            const Vec3 p = points.back();
            points.push_back({p.x + step * m_dice.between(0.4, 1.0), p.y + step * m_dice.between(-1.0, 1.0),
                              std::max(points.front().z, p.z + step * m_dice.between(-0.8, 0.8))});
            total += distance(p, points.back());
        }
        add(points);
        feed(0, total * m_dice.between(0.1, 0.9));
    }

    void parasitic()
    {
        const double z = height(), a = 0.25 * m_wavelength * m_dice.between(0.85, 1.05), b = a * m_dice.between(0.85, 1.15);
        const double apart = m_wavelength * m_dice.logBetween(0.01, 0.3) + 5.0 * m_radius;
        add({{-a, 0, z}, {a, 0, z}});
        add({{-b, apart, z}, {b, apart, z}});
        feed(0, a);
    }

    void longWire()
    {
        const double z = height(), length = m_wavelength * m_dice.between(2.0, 8.0);
        add({{0, 0, z}, {length, 0, z}});
        feed(0, length * m_dice.between(0.05, 0.5));
    }

    Dice m_dice;
    RandomAntenna m_out;
    double m_wavelength = 0.0, m_radius = 0.0;
};

/// Mostly plain figures, now and then what breaks programs.
double anyNumber(Dice& dice, double usual)
{
    static const std::array<double, 12> odd{0.0,
                                            -1.0,
                                            1e-300,
                                            1e300,
                                            1e-9,
                                            -1e-12,
                                            std::numeric_limits<double>::infinity(),
                                            std::numeric_limits<double>::quiet_NaN(),
                                            5e5,
                                            1e-6,
                                            2e-6,
                                            std::numeric_limits<double>::denorm_min()};
    return dice.chance(0.03) ? odd[std::size_t(dice.whole(0, int(odd.size()) - 1))] : usual;
}

} // namespace

RandomAntenna randomAntenna(unsigned seed)
{
    for (unsigned attempt = 0;; ++attempt) {
        RandomAntenna antenna = Maker(seed + 100003 * attempt).run();
        if (findFaults(antenna.model).empty())
            return antenna;
    }
}

WireModel wildModel(unsigned seed)
{
    Dice dice(seed + 77777777ull);
    WireModel model;
    model.ground.kind = GroundKind(dice.whole(0, 2));
    static const std::array<std::array<double, 2>, 8> soils{
        {{1.0, 0.0}, {1.0, 1e-4}, {3.0, 1e-3}, {13.0, 5e-3}, {30.0, 0.0}, {81.0, 5.0}, {100.0, 10.0}, {5.0, 1e-5}}};
    const auto& soil = soils[std::size_t(dice.whole(0, int(soils.size()) - 1))]; // few, so that their tables are shared
    model.ground.relativePermittivity = anyNumber(dice, soil[0]);
    model.ground.conductivity = anyNumber(dice, soil[1]);
    const double size = dice.logBetween(0.05, 30.0);
    std::vector<Vec3> known;
    for (int w = dice.whole(0, 4); w >= 0; --w) {
        Wire wire;
        wire.id = "w" + std::to_string(w);
        wire.radius = anyNumber(dice, size * dice.logBetween(1e-6, 0.02));
        for (int p = dice.whole(dice.chance(0.02) ? 0 : 2, 4); p > 0; --p) {
            const bool joint = !known.empty() && dice.chance(0.3);
            const auto place = [&] { return anyNumber(dice, size * (dice.chance(0.2) ? double(dice.whole(-1, 1)) : dice.between(-1, 1))); };
            wire.points.push_back(joint ? known[std::size_t(dice.whole(0, int(known.size()) - 1))]
                                        : Vec3{place(), place(), (dice.chance(0.2) ? -0.3 : 1.0) * std::abs(place())});
            known.push_back(wire.points.back());
        }
        if (dice.chance(0.3))
            wire.conductivity = anyNumber(dice, dice.logBetween(1e5, 6e7));
        if (dice.chance(0.1))
            wire.endRadius = anyNumber(dice, wire.radius * dice.between(0.2, 3.0));
        if (dice.chance(0.1))
            wire.insulation = Insulation{anyNumber(dice, wire.radius * 2.0), anyNumber(dice, 2.3), anyNumber(dice, 0.001)};
        if (dice.chance(0.1))
            wire.relativePermeability = anyNumber(dice, dice.logBetween(1.0, 1e3));
        if (wire.conductivity && dice.chance(0.3))
            wire.coating = Coating{anyNumber(dice, wire.radius * dice.logBetween(1e-3, 1.0)), anyNumber(dice, dice.logBetween(1e5, 6e7)),
                                   anyNumber(dice, 1.0)};
        if (wire.conductivity && dice.chance(0.2))
            wire.wall = anyNumber(dice, wire.radius * dice.logBetween(1e-3, 1.2));
        model.wires.push_back(wire);
    }
    for (int f = dice.whole(dice.chance(0.05) ? 0 : 1, 2); f > 0; --f) {
        const std::size_t wire = std::size_t(dice.whole(0, int(model.wires.size()) - (dice.chance(0.98) ? 1 : 0)));
        const double length = wire < model.wires.size() ? model.wires[wire].length() : 1.0;
        model.feeds.push_back({wire, anyNumber(dice, length * dice.unit()), {anyNumber(dice, 1.0), 0.0}});
        if (dice.chance(0.1))
            model.feeds.back().transformer =
                Transformer{anyNumber(dice, 49.0), anyNumber(dice, 1e-7), anyNumber(dice, 4e-6), anyNumber(dice, 400.0)};
    }
    for (int l = dice.whole(0, 2); l > 0; --l)
        model.loads.push_back({std::size_t(dice.whole(0, int(model.wires.size()) - 1)), anyNumber(dice, size * dice.unit() * 0.5),
                               LoadKind(dice.whole(0, 1)), anyNumber(dice, 10.0), anyNumber(dice, 1e-6), anyNumber(dice, 1e-10),
                               anyNumber(dice, 100.0), dice.chance(0.1) ? anyNumber(dice, 3e7) : 0.0});
    if (dice.chance(0.1)) { // a coil with a length, which often finds room
        Load coil;
        coil.wire = std::size_t(dice.whole(0, int(model.wires.size()) - 1));
        const Wire& wire = model.wires[coil.wire];
        coil.at = anyNumber(dice, wire.length() * dice.unit());
        coil.inductance = anyNumber(dice, dice.logBetween(1e-7, 1e-4));
        const double diameter = wire.radius * dice.logBetween(3.0, 50.0);
        coil.size = {anyNumber(dice, diameter * dice.logBetween(1.0, 20.0)), anyNumber(dice, diameter), anyNumber(dice, wire.radius)};
        model.loads.push_back(coil);
    }
    if (dice.chance(0.1)) {
        const auto wire = [&] { return std::size_t(dice.whole(0, int(model.wires.size()) - 1)); };
        const auto place = [&] { return anyNumber(dice, size * dice.unit() * 0.5); };
        model.lines.push_back({wire(), wire(), place(), place(), LineEnd(dice.whole(0, 2)), anyNumber(dice, 50.0), anyNumber(dice, size),
                               anyNumber(dice, 0.66), anyNumber(dice, 0.05), dice.chance(0.5)});
    }
    return model;
}

} // namespace vetchling::testing
