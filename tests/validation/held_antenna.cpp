#include "tests/validation/held_antenna.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace vetchling::testing {
namespace {

constexpr double same = 1e-6, soilLevel = 0.02; // m

Vec3 along(const Vec3& a, const Vec3& b, double part)
{
    return {a.x + part * (b.x - a.x), a.y + part * (b.y - a.y), a.z + part * (b.z - a.z)};
}

double pathOf(const Wire& wire)
{
    double sum = 0.0;
    for (std::size_t i = 1; i < wire.points.size(); ++i)
        sum += distance(wire.points[i - 1], wire.points[i]);
    return sum;
}

bool begins(const std::string& id, const std::vector<std::string>& names)
{
    return names.empty() || std::any_of(names.begin(), names.end(), [&](const std::string& n) { return id.rfind(n, 0) == 0; });
}

/// Saws off (or joins on) at one end; what lies along the path from its first point keeps its place on the wire.
void saw(WireModel& model, std::size_t place, bool atEnd, double amount)
{
    std::vector<Vec3>& p = model.wires[place].points;
    if (!atEnd) {
        std::reverse(p.begin(), p.end());
        for (Feed& f : model.feeds)
            if (f.wire == place)
                f.at -= amount;
        for (Load& l : model.loads)
            if (l.wire == place)
                l.at -= amount;
    }
    double left = amount;
    while (left > distance(p[p.size() - 2], p.back()) && p.size() > 2) {
        left -= distance(p[p.size() - 2], p.back());
        p.pop_back();
    }
    const double last = distance(p[p.size() - 2], p.back());
    p.back() = along(p[p.size() - 2], p.back(), (last - left) / last);
    if (!atEnd)
        std::reverse(p.begin(), p.end());
}

bool isOpen(const WireModel& model, std::size_t place, bool atEnd)
{
    const Wire& wire = model.wires[place];
    const Vec3 tip = atEnd ? wire.points.back() : wire.points.front();
    if (tip.z < soilLevel)
        return false;
    for (const Feed& f : model.feeds)
        if (f.wire == place && std::abs(f.at - (atEnd ? pathOf(wire) : 0.0)) < same)
            return false;
    for (std::size_t w = 0; w < model.wires.size(); ++w)
        for (std::size_t i = 0; i < model.wires[w].points.size(); ++i)
            if ((w != place || i != (atEnd ? wire.points.size() - 1 : 0)) && distance(model.wires[w].points[i], tip) < same)
                return false;
    return true;
}

void sawTips(WireModel& model, const Grip& grip, double amount)
{
    for (std::size_t w = 0; w < model.wires.size(); ++w)
        for (bool atEnd : {false, true})
            if (begins(model.wires[w].id, grip.wires) && isOpen(model, w, atEnd))
                saw(model, w, atEnd, amount);
}

/// Coils come in with the tip, towards the feed or, on a wire without one, towards its first point.
void sawBeyondCoil(WireModel& model, const Grip& grip, double amount)
{
    sawTips(model, grip, amount);
    for (Load& load : model.loads) {
        double feed = 0.0;
        for (const Feed& f : model.feeds)
            if (f.wire == load.wire)
                feed = f.at;
        if (begins(model.wires[load.wire].id, grip.wires))
            load.at += load.at > feed ? -amount : amount;
    }
}

/// With the links open what hangs beyond the first wire comes in along itself; with them closed there is nothing else.
void sawAtLink(WireModel& model, const Vec3& feed, double amount)
{
    for (Wire& wire : model.wires) {
        if (wire.id.rfind("section", 0) != 0)
            continue;
        const bool forward = distance(wire.points.front(), feed) < distance(wire.points.back(), feed);
        const Vec3 near = forward ? wire.points.front() : wire.points.back(), far = forward ? wire.points.back() : wire.points.front();
        const Vec3 step = along({0, 0, 0}, {near.x - far.x, near.y - far.y, near.z - far.z}, amount / distance(near, far));
        for (Vec3& q : wire.points)
            q = {q.x + step.x, q.y + step.y, q.z + step.z};
    }
    for (std::size_t w = 0; w < model.wires.size(); ++w)
        for (bool atEnd : {false, true})
            if (model.wires[w].id.rfind("section", 0) != 0 && model.wires[w].id != "shield" && isOpen(model, w, atEnd))
                saw(model, w, atEnd, amount);
}

/// Of the outer sections the ends that are far from the feed; with the links closed the ends of all.
void sawFarEnds(WireModel& model, const Vec3& feed, double amount)
{
    const bool parted = std::any_of(model.wires.begin(), model.wires.end(), [](const Wire& w) { return w.id.rfind("section", 0) == 0; });
    for (std::size_t w = 0; w < model.wires.size(); ++w) {
        const Wire& wire = model.wires[w];
        if (wire.id == "shield" || (parted && wire.id.rfind("section", 0) != 0))
            continue;
        for (bool atEnd : {false, true}) {
            const Vec3 tip = atEnd ? wire.points.back() : wire.points.front(), other = atEnd ? wire.points.front() : wire.points.back();
            if (isOpen(model, w, atEnd) && (!parted || distance(tip, feed) > distance(other, feed)))
                saw(model, w, atEnd, amount);
        }
    }
}

void scale(WireModel& model, double amount)
{
    for (std::size_t w = 0; w < model.wires.size(); ++w) {
        Wire& wire = model.wires[w];
        const double path = pathOf(wire), factor = (path - amount) / path;
        const Vec3 top = *std::max_element(wire.points.begin(), wire.points.end(), [](const Vec3& a, const Vec3& b) { return a.z < b.z; });
        for (Vec3& p : wire.points)
            p = along(top, p, factor);
        for (Feed& f : model.feeds)
            if (f.wire == w)
                f.at *= factor;
    }
}

void foldIn(WireModel& model, const Vec3& feed, double amount)
{
    for (std::size_t w = 0; w < model.wires.size(); ++w) {
        Wire& wire = model.wires[w];
        double far = 0.0;
        for (const Vec3& p : wire.points)
            far = std::max(far, std::hypot(p.x - feed.x, p.y - feed.y));
        const double before = pathOf(wire);
        for (Vec3& p : wire.points)
            if (const double out = std::hypot(p.x - feed.x, p.y - feed.y); out > 0.9 * far)
                p = {feed.x + (p.x - feed.x) * (out - amount) / out, feed.y + (p.y - feed.y) * (out - amount) / out, p.z};
        for (Feed& f : model.feeds) // it stays in the middle of its wire
            if (f.wire == w && f.at > same)
                f.at *= pathOf(wire) / before;
    }
}

/// Both sides of the feed, each in its part of the whole.
void sawSides(WireModel& model, double amount)
{
    const Feed feed = model.feeds.front();
    const double path = pathOf(model.wires[feed.wire]), first = feed.at / path;
    saw(model, feed.wire, false, first * amount);
    saw(model, feed.wire, true, (1.0 - first) * amount);
}

} // namespace

const Grip* gripOf(const std::string& family, const std::string& lever)
{
    static const std::vector<Grip> all{
        {"dipole", "leg_m"},
        {"bent-dipole", "leg_m"},
        {"off-centre-dipole", "length_m", Hand::Sides},
        {"folded-dipole", "leg_m", Hand::Folded},
        {"tube-dipole", "leg_m"},
        {"whip-pair", "leg_m"},
        {"rod-dipole", "leg_m", Hand::Tips, {"first rod", "second rod"}},
        {"loaded-dipole", "leg_m"},
        {"trap-dipole", "leg_m", Hand::Coil},
        {"trap-dipole", "whole_m"},
        {"hat-dipole", "hat_m", Hand::Tips, {"spoke"}},
        {"linear-loaded-dipole", "leg_m"},
        {"fan-dipole", "leg_m", Hand::Tips, {"leg 1"}},
        {"fan-dipole", "leg_2_m", Hand::Tips, {"leg 2"}},
        {"linked-dipole", "leg_m", Hand::Link},
        {"linked-dipole", "leg_2_m", Hand::Outer},
        {"end-fed", "length_m", Hand::Tips, {"wire"}},
        {"linked-end-fed", "length_m", Hand::Link},
        {"linked-end-fed", "length_2_m", Hand::Outer},
        {"end-fed-tail", "length_m", Hand::Coil, {"wire"}},
        {"end-fed-tail", "tail_m", Hand::Tips, {"wire"}},
        {"end-fed-pair", "length_m", Hand::Tips, {"first wire"}},
        {"end-fed-pair", "length_2_m", Hand::Tips, {"second wire"}},
        {"long-wire", "length_m", Hand::Tips, {"wire"}},
        {"long-v", "leg_m", Hand::Tips, {"legs"}},
        {"vertical", "radiator_m", Hand::Tips, {"radiator"}},
        {"whip", "whip_m", Hand::Tips, {"whip"}},
        {"loaded-vertical", "radiator_m", Hand::Tips, {"radiator"}},
        {"inverted-l", "length_m", Hand::Tips, {"radiator"}},
        {"t-vertical", "arm_m", Hand::Tips, {"first top", "second top"}},
        {"half-wave-vertical", "radiator_m", Hand::Tips, {"radiator"}},
        {"five-eighths-vertical", "radiator_m", Hand::Tips, {"radiator"}},
        {"three-quarter-vertical", "radiator_m", Hand::Tips, {"radiator"}},
        {"two-band-whip", "inductance_H", Hand::Henries},
        {"two-band-whip", "lower_m", Hand::Coil, {"radiator"}},
        {"trap-vertical", "lower_m", Hand::Coil, {"radiator"}},
        {"trap-vertical", "upper_m", Hand::Tips, {"radiator"}},
        {"mobile-whip", "radiator_m", Hand::Tips, {"whip"}},
        {"delta-loop", "perimeter_m", Hand::Loop},
        {"loop", "perimeter_m", Hand::Loop},
    };
    const auto found = std::find_if(all.begin(), all.end(), [&](const Grip& g) { return g.family == family && g.lever == lever; });
    return found == all.end() ? nullptr : &*found;
}

HeldAntenna::HeldAntenna(std::vector<shapes::BuiltAntenna> drawn) : m_drawn(std::move(drawn)) {}

bool HeldAntenna::hangs() const
{
    for (const Wire& w : m_drawn.front().model.wires)
        for (const Vec3& p : w.points)
            if (p.z < 1.0)
                return false;
    return true;
}

void HeldAntenna::raise(double by)
{
    for (shapes::BuiltAntenna& one : m_drawn)
        for (Wire& w : one.model.wires)
            for (Vec3& p : w.points)
                p.z += by;
}

void HeldAntenna::take(const Grip& grip, double amount)
{
    for (shapes::BuiltAntenna& one : m_drawn) {
        WireModel& model = one.model;
        switch (grip.hand) {
        case Hand::Tips: sawTips(model, grip, amount); break;
        case Hand::Coil: sawBeyondCoil(model, grip, amount); break;
        case Hand::Link: sawAtLink(model, one.feedPoint, amount); break;
        case Hand::Outer: sawFarEnds(model, one.feedPoint, amount); break;
        case Hand::Loop: scale(model, amount); break;
        case Hand::Folded: foldIn(model, one.feedPoint, amount); break;
        case Hand::Sides: sawSides(model, amount); break;
        case Hand::Henries:
            for (Load& load : model.loads)
                load.inductance -= amount;
            break;
        }
    }
}

Result<HeldAntenna::Dip> HeldAntenna::dip(study::Library& library, const Ground& soil, std::size_t configuration, double near) const
{
    constexpr double searched = 0.14;
    constexpr int points = 1400;
    const shapes::BuiltAntenna& antenna = m_drawn[configuration];
    WireModel model = antenna.model;
    model.ground = soil;
    const double from = (1.0 - searched) * near, to = (1.0 + searched) * near;
    const auto curve = library.study(model, antenna.portReference)->curve({from, to});
    if (!curve)
        return curve.faults();
    std::vector<double> f, swr;
    for (int i = 0; i <= points; ++i) {
        f.push_back(from + (to - from) * i / points);
        const Complex z = antenna.atLine((*curve)->at(f.back()), f.back()), g = (z - 50.0) / (z + 50.0);
        swr.push_back((1.0 + std::abs(g)) / std::max(1e-9, 1.0 - std::abs(g)));
    }
    Dip best;
    for (std::size_t i = 1; i + 1 < f.size(); ++i)
        if (swr[i] <= swr[i - 1] && swr[i] < swr[i + 1] &&
            (best.frequency == 0.0 || std::abs(f[i] - near) < std::abs(best.frequency - near))) {
            std::size_t low = i, high = i;
            while (low > 0 && swr[low] < 2.0)
                --low;
            while (high + 1 < f.size() && swr[high] < 2.0)
                ++high;
            const double bend = swr[i - 1] - 2.0 * swr[i] + swr[i + 1]; // between the points by a parabola
            const double beside = bend > 0.0 ? 0.5 * (swr[i - 1] - swr[i + 1]) / bend : 0.0;
            best = {f[i] + beside * (f[1] - f[0]), f[high] - f[low]};
        }
    if (best.frequency == 0.0)
        return Fault{"", "no dip"};
    return best;
}

} // namespace vetchling::testing
