#pragma once
/// The views of Shape that lay choices side by side: what a shorter antenna costs, and what so much wire does as radials.

#include "app/document/choices_desk.h"
#include "app/plots/pair_chart.h"

namespace vetchling::app {

class Choices : public QObject {
    Q_OBJECT
public:
    using Kind = ChoicesDesk::Kind;

    Choices(ViewContext& context, QObject* parent = nullptr);
    [[nodiscard]] PairChart* chart() const { return m_chart; }
    /// Whether the antenna on show has such choices.
    [[nodiscard]] bool offers(Kind kind) const;
    /// What can be traded, in words; none where there is no choice.
    [[nodiscard]] QStringList pairs() const;
    [[nodiscard]] std::size_t pair() const { return m_pair; }
    void setPair(std::size_t pair) { m_pair = pair; }
    /// Asks for them, and shows what is known. Returns the sentence for the page.
    QString refresh(Kind kind);

signals:
    void ready();

private:
    void take(int choice);
    [[nodiscard]] QString words(const std::string& parameter, double value) const;
    [[nodiscard]] PairChart::Content content(const study::TradeCurve& curve) const;
    [[nodiscard]] PairChart::Content content(const study::RadialCurve& curve) const;
    [[nodiscard]] QString sentence(const study::TradeCurve& curve) const;
    [[nodiscard]] QString sentence(const study::RadialCurve& curve) const;

    ViewContext& m_context;
    ChoicesDesk m_desk;
    PairChart* m_chart;     ///< belongs to the page
    std::size_t m_pair = 0; ///< of the family's trades
};

} // namespace vetchling::app
