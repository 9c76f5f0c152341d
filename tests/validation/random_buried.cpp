#include "tests/validation/dice.h"
#include "tests/validation/random_antennas.h"

#include <algorithm>
#include <array>

namespace vetchling::testing {
namespace {

class BuriedMaker {
public:
    explicit BuriedMaker(unsigned seed) : m_dice(seed + 5555555ull)
    {
        m_out.frequency = m_dice.logBetween(1.8e6, 30e6);
        m_wavelength = speedOfLight / m_out.frequency;
        Ground& g = m_out.model.ground;
        g.kind = GroundKind::Real;
        g.relativePermittivity = m_dice.logBetween(3.0, 80.0);
        g.conductivity = m_dice.chance(0.1) ? 5.0 : m_dice.logBetween(2e-4, 0.1);
        m_radius = m_dice.logBetween(5e-4, 3e-3);
    }

    RandomAntenna run()
    {
        static const std::array<std::pair<const char*, void (BuriedMaker::*)()>, 6> kinds{{{"buried radials", &BuriedMaker::radials},
                                                                                           {"ground rod", &BuriedMaker::rod},
                                                                                           {"above and below", &BuriedMaker::both},
                                                                                           {"lost wire", &BuriedMaker::lost},
                                                                                           {"sloping into the soil", &BuriedMaker::sloping},
                                                                                           {"loop through the soil", &BuriedMaker::loop}}};
        const auto& [name, make] = kinds[std::size_t(m_dice.whole(0, int(kinds.size()) - 1))];
        m_out.kind = name;
        (this->*make)();
        const bool jackets = m_dice.chance(0.2);
        for (Wire& w : m_out.model.wires) {
            w.conductivity = 5.8e7;
            if (jackets)
                w.insulation = Insulation{w.radius * 1.8, 2.3, 0.001};
        }
        return std::move(m_out);
    }

private:
    void add(std::vector<Vec3> points)
    {
        Wire w;
        w.id = "w" + std::to_string(m_out.model.wires.size());
        w.radius = m_radius;
        w.points = std::move(points);
        m_out.model.wires.push_back(std::move(w));
    }
    void feed(double at) { m_out.model.feeds.push_back({0, at, 1.0}); }
    double depth() { return m_dice.logBetween(0.02, 1.0); }
    double mast() { return m_wavelength * m_dice.between(0.1, 0.3); }

    void star(Vec3 hub, int count, bool even)
    {
        const double length = m_dice.between(0.05, 0.25) * m_wavelength;
        for (int i = 0; i < count; ++i) {
            const double angle = 2.0 * pi * i / count + (even ? 0.0 : m_dice.between(0.0, 0.5));
            add({hub, hub + Vec3{length * std::cos(angle), length * std::sin(angle), 0.0}});
        }
    }

    void radials()
    {
        const double d = depth(), top = mast();
        add({{0, 0, top}, {0, 0, 0}, {0, 0, -d}});
        feed(m_dice.between(0.6, 0.98) * top);
        star({0, 0, -d}, m_dice.whole(2, 8), m_dice.chance(0.7));
    }

    void rod()
    {
        const double top = mast();
        add({{0, 0, top}, {0, 0, -m_dice.between(0.5, 3.0)}});
        feed(m_dice.between(0.6, 0.98) * top);
    }

    void both()
    {
        const double d = depth(), top = mast(), up = m_dice.logBetween(0.05, 1.0);
        add({{0, 0, top}, {0, 0, up}, {0, 0, 0}, {0, 0, -d}});
        feed(0.7 * (top - up));
        star({0, 0, up}, m_dice.whole(2, 4), true);
        star({0, 0, -d}, m_dice.whole(2, 4), false);
    }

    void lost()
    {
        const double half = 0.25 * m_wavelength * m_dice.between(0.7, 1.1), high = m_wavelength * m_dice.between(0.03, 0.3), d = depth();
        add({{-half, 0, high}, {half, 0, high}});
        feed(half);
        add({{-0.8 * half, 1.0, -d}, {0.9 * half, 2.0, -d}});
    }

    void sloping()
    {
        const double up = m_wavelength * m_dice.between(0.05, 0.2), d = depth();
        add({{0, 0, up}, {m_dice.between(0.1, 1.5) * up, 0, 0}, {m_dice.between(1.6, 2.0) * up, 0.3, -d}});
        feed(0.5 * up);
    }

    void loop()
    {
        const double wide = m_wavelength * m_dice.between(0.1, 0.6), up = m_dice.between(1.0, 4.0), d = m_dice.between(0.5, 2.0);
        add({{0, 0, -d}, {0, 0, up}, {wide, 1.0, up}, {wide, 1.0, -d}});
        feed(d + 0.6 * up);
    }

    Dice m_dice;
    RandomAntenna m_out;
    double m_wavelength = 0.0, m_radius = 0.0;
};

} // namespace

/// A slope that is too flat or a wire that is refused is drawn again.
RandomAntenna randomBuried(unsigned seed)
{
    for (unsigned again = 0;; ++again) {
        RandomAntenna antenna = BuriedMaker(seed + 100003u * again).run();
        if (findFaults(antenna.model).empty())
            return antenna;
    }
}

} // namespace vetchling::testing
