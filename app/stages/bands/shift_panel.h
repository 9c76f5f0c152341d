#pragma once
/// Shifting the harmonics, in the ledger of the map: a coil near the feed, or a coil and a tail for a band below, solved and told with
/// what they cost; the map can be looked at with them before they are taken.

#include "app/stages/bands/bands_view.h"

class QCheckBox;

namespace vetchling::app {

class ShiftPanel : public QObject {
    Q_OBJECT
public:
    ShiftPanel(ViewContext& context, BandsDesk& desk, Ledger& ledger, QObject* parent);

    /// Whether the antenna on show has a place for any of it.
    [[nodiscard]] static bool offered(const ViewContext& context);
    void refresh();
    /// What the map is to be computed for in place of the antenna on show; nothing: as it is.
    [[nodiscard]] std::optional<shapes::AntennaShape> tried() const;

signals:
    void changed(); ///< the map is another

private:
    void solve(const std::function<void()>& ask);
    void take();
    [[nodiscard]] QString told(const study::Compensation& found) const;
    [[nodiscard]] QString tableOf(const study::Compensation& found) const;
    [[nodiscard]] QString givenUp(const study::Compensation& found) const;
    [[nodiscard]] QString bandName(const Id& id) const;

    ViewContext& m_context;
    BandsDesk& m_desk;
    std::vector<QPushButton*> m_solves;
    QLabel *m_words = nullptr, *m_table = nullptr, *m_givenUp = nullptr;
    QCheckBox* m_try = nullptr;
    QPushButton* m_take = nullptr;
};

} // namespace vetchling::app
