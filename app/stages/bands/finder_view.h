#pragma once
/// The view that finds a length for a wire that goes to a tuner: by the rule that avoids half waves, and by what is solved of this antenna.

#include "app/stages/bands/bands_view.h"

namespace vetchling::app {

class ValueEdit;

/// Lengths across: above what the rule leaves free, below the worst mismatch over the wanted bands behind several transformers.
class FinderChart final : public Canvas {
    Q_OBJECT
public:
    explicit FinderChart(ViewContext& context);
    /// @param now m, the length the antenna has
    void show(std::shared_ptr<const study::FinderFacts> facts, double now);
    void render(Sketch& sketch, const QSizeF& size) override;

signals:
    void taken(double length);

protected:
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void leaveEvent(QEvent*) override;

private:
    [[nodiscard]] QRectF ruleArea(const QSizeF& size) const;
    [[nodiscard]] QRectF solvedArea(const QSizeF& size) const;
    [[nodiscard]] double x(double length, const QRectF& area) const;
    void paintRule(Sketch& sketch, const QRectF& area) const;
    void paintSolved(Sketch& sketch, const QRectF& area) const;

    std::shared_ptr<const study::FinderFacts> m_facts = std::make_shared<const study::FinderFacts>(); ///< never null
    double m_now = 0.0;
    double m_pointer = -1.0;    ///< px
    double m_fromNearest = 0.0; ///< percent of a half wave, of the length under the pointer
};

class FinderView final : public BandsView {
    Q_OBJECT
public:
    FinderView(ViewContext& context, BandsDesk& desk, QObject* parent);

    QString id() const override { return QStringLiteral("finder"); }
    QString name() const override { return tr("Wire finder"); }
    QWidget* widget() override { return m_chart; }
    Canvas* canvas() override { return m_chart; }
    QString title() const override { return tr("Bands: a wire for a tuner"); }
    QString sentence() const override;
    QString tableText() const override;
    bool offered() const override { return document().hasAntenna(); }
    QString layout() const override;
    void buildLedger(Ledger& ledger) override;
    void forgetLedger() override { m_margin = nullptr; }
    void refresh() override;

signals:
    /// A new antenna is wanted, of the kind that has such a length.
    void wireWanted();

private:
    /// The length that is found, of antennas that are one wire from feed to end; empty for others.
    [[nodiscard]] std::string lengthKey() const;
    [[nodiscard]] const WantedBand* lowestWanted() const;
    [[nodiscard]] QString fault() const;
    [[nodiscard]] std::optional<double> room() const;
    void chooseRange();
    void take(double length, std::optional<double> ratio);

    FinderChart* m_chart;
    Id m_antenna; ///< the range was chosen for
    FreeLengthOptions m_options;
    ValueEdit *m_margin = nullptr, *m_slow = nullptr, *m_fast = nullptr, *m_from = nullptr, *m_to = nullptr;
    QComboBox* m_measure = nullptr;
    QLabel *m_ranked = nullptr, *m_solved = nullptr;
    QPushButton *m_takeBest = nullptr, *m_takeSolved = nullptr;
    std::pair<double, double> m_chosen; ///< m, the range as it was proposed
    std::optional<double> m_room;       ///< m of wire that fit as it hangs; the range is no longer than that unless it is typed
};

} // namespace vetchling::app
