#pragma once
/// Where an antenna may be put: inside the boundary, out of houses, water and the reach of power lines, clear of other antennas, and held.
/// Straight wires, ropes and masts; what a person draws is told by fitOnSite and never moved.

#include "core/design/design.h"

#include <functional>

namespace vetchling::advice {

/// A pole that would have to be put up.
struct NewPole {
    PlanPoint at;
    double height = 0.0; ///< m
};

inline constexpr double tieAllowance = 0.1; ///< m that a pole is higher than what it holds
void putUp(Design& design, const std::vector<NewPole>& poles);

/// One way to hang a shape.
struct Place {
    shapes::AntennaShape shape;
    std::vector<Id> supports;   ///< that hold it
    std::vector<NewPole> poles; ///< that it needs besides
    Text laid;                  ///< what of it was made smaller to fit; empty: nothing
    Text fault;                 ///< why it may not be there; empty: it may
    int against = 0;            ///< how much is against it, to tell which of two that may not be there is nearer to it
    [[nodiscard]] bool allowed() const { return fault.empty(); }
};

struct PlaceOptions {
    std::vector<Id> supports; ///< that may be used; empty: all
    double mostPole = 12.0;   ///< m that a new pole may be high
    std::size_t mostPoles = 2;
    double room = 1.04; ///< times what its rule says it may come to be, once it is tuned
};

/// Judges shapes on one site, among the antennas that hang there.
class Judge {
public:
    explicit Judge(const Design& design, PlaceOptions options = {});
    /// The shape as it is.
    [[nodiscard]] Place judge(const shapes::AntennaShape& shape) const { return judge(shape, 1.0); }
    /// The same of a shape that is yet to be tuned: also where it is some hundredths longer.
    [[nodiscard]] Place judgeWithRoom(const shapes::AntennaShape& shape) const;
    /// The supports that may be used, the highest first.
    [[nodiscard]] const std::vector<const Support*>& supports() const { return m_supports; }
    [[nodiscard]] const Site& site() const { return m_design.site; }

private:
    friend class Movable;
    /// @param room times the mast that may stand by itself
    [[nodiscard]] Place judge(const shapes::AntennaShape& shape, double room) const;
    [[nodiscard]] Place judge(const shapes::AntennaShape& shape, const WireModel& model, double room) const;
    /// @param longer the same with room, where `place` is allowed
    [[nodiscard]] Place withRoom(Place place, const std::function<Place()>& longer) const;
    [[nodiscard]] bool leavesSite(const WireModel& model, Place& place) const;
    /// @param higher times the highest pole that may be
    [[nodiscard]] bool mayStand(const NewPole& pole, double higher) const;
    void take(const SiteWarning& warning, Place& place) const;

    const Design& m_design;
    PlaceOptions m_options;
    std::vector<const Support*> m_supports;
    std::vector<std::pair<std::string, WireModel>> m_others;
};

/// One shape at many places: it is built once, and moved.
class Movable {
public:
    Movable(const Judge& judge, shapes::AntennaShape shape);
    /// As Judge::judgeWithRoom.
    [[nodiscard]] Place at(PlanPoint place);

private:
    /// A shape as it is built at the origin, and where it was brought to.
    struct Cast {
        shapes::AntennaShape shape;
        Result<shapes::BuiltAntenna> origin;
        WireModel model;
        /// Judged there.
        [[nodiscard]] Place at(PlanPoint place, const Judge& judge, double room);
    };
    [[nodiscard]] Cast castOf(shapes::AntennaShape shape) const;

    const Judge& m_judge;
    Cast m_own;
    std::optional<Cast> m_longer; ///< once it is asked for
};

/// Hung by its ends between two supports: the pair whose lower one is highest, both ways round. Nothing where the family is not made for
/// it, or there are no two. A place that is not allowed is the one with least against it.
std::optional<Place> betweenTwo(const Judge& judge, const shapes::AntennaShape& shape);
/// A wire fed at its end that may bend: up from the foot of one support to the top of a second and on towards a third. Nothing where the
/// family has no bend, or there are no three.
std::optional<Place> roundACorner(const Judge& judge, const shapes::AntennaShape& shape);
/// From one support, in the direction in which it is allowed, the highest support first. @param turned makes the shape that leaves a
/// support in a bearing, degrees; by default it hangs by what the highest support is for
using Turned = std::function<std::optional<shapes::AntennaShape>(const Support& support, double bearing)>;
std::optional<Place> fromOne(const Judge& judge, const shapes::AntennaShape& shape, const Turned& turned = {});
/// On the ground or on a mast of its own, as near to where the feed line comes in as may be; radials shorter where there is no room.
Place byItself(const Judge& judge, const shapes::AntennaShape& shape);

} // namespace vetchling::advice
