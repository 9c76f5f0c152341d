#pragma once
/// The chain from the antenna to the radio as a row of symbols: laid out, painted, and asked what lies under the pointer.

#include "app/view/context.h"
#include "app/view/sketch.h"
#include "core/study/feed.h"

#include <optional>

namespace vetchling::app {

class ChainDrawing {
public:
    static constexpr double height = 122.0; ///< px

    struct Place {
        Id part; ///< empty: antenna and radio
        ChainPart what;
        QString name, figure, loss, tip;
        bool own = false; ///< of the shape's own
    };

    /// @param report may be null @param band whose figures stand under the parts
    void take(const Document& document, const std::shared_ptr<const study::FeedReport>& report, const Id& band);
    void layOut(const QRectF& area);
    /// @param dragged a part that is on its way, and where
    void paint(Sketch& sketch, const Id& chosen, const Id& hovered, const std::optional<std::pair<Id, QPointF>>& dragged) const;

    /// The part there; empty where there is none.
    [[nodiscard]] Id partAt(QPointF p) const;
    /// Where a part that is dropped there would stand among the movable ones.
    [[nodiscard]] int placeAt(QPointF p) const;
    /// Movable parts, in their order.
    [[nodiscard]] std::vector<Id> movable() const;
    [[nodiscard]] const std::vector<Place>& places() const { return m_places; }
    [[nodiscard]] QPointF centreOf(std::size_t place) const;
    [[nodiscard]] QRectF boxOf(std::size_t place) const;
    [[nodiscard]] QString tipAt(QPointF p) const;

private:
    void add(const Document& document, const study::FeedReport* report, const study::FeedRow* row, const ChainPart& part, std::size_t index,
             bool own);

    std::vector<Place> m_places;
    QRectF m_area;
};

} // namespace vetchling::app
