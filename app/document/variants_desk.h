#pragma once
/// Variants of the antenna on show beside one another, and how far each may be off: computed in the background while somebody looks.

#include "app/document/asked.h"
#include "core/study/comparison.h"

#include <QObject>
#include <QTimer>

namespace vetchling::app {

class VariantsDesk : public QObject {
    Q_OBJECT
public:
    VariantsDesk(Document& document, SolveService& solver, QObject* parent = nullptr);

    /// The antenna as drawn and its variants, then the pinned antenna; rows come one after the other.
    void wantComparison();
    /// Null before the first row.
    [[nodiscard]] std::shared_ptr<const std::vector<study::Compared>> comparison() const { return m_comparison.answer(); }
    /// Curves of the variants that are not looked at, as far as they are known; `row` is their place in the table.
    struct Other {
        std::size_t row;
        std::vector<CurvePointer> curves; ///< by configuration
        QString name;
        /// Null where it has no such configuration.
        [[nodiscard]] CurvePointer curve(std::size_t configuration) const
        {
            return configuration < curves.size() ? curves[configuration] : nullptr;
        }
    };
    [[nodiscard]] std::vector<Other> others() const;
    [[nodiscard]] bool comparing() const { return m_comparison.busy(); }
    /// Whether the spread comes by itself when all else is answered, and is shown round the curves.
    void setAlways(bool always);
    [[nodiscard]] bool always() const { return m_always; }
    /// How long all is at rest before anything of this is computed by itself, ms.
    void setIdle(int milliseconds) { m_idleFor = milliseconds; }
    /// Of the antenna on show and the variant that is looked at.
    void wantSpread();
    /// The last answer; null before the first.
    [[nodiscard]] std::shared_ptr<const study::Spread> spread() const { return m_spread.answer(); }
    /// The last answer, where it is of the antenna as it is now; null else.
    [[nodiscard]] std::shared_ptr<const study::Spread> freshSpread() const;
    [[nodiscard]] const Faults& spreadFaults() const { return m_spread.faults(); }
    [[nodiscard]] bool spreading() const { return m_spread.busy(); }

    /// What may take long here.
    [[nodiscard]] std::vector<NamedWaiting> waitings();

signals:
    void comparisonReady();
    void spreadReady();

private:
    [[nodiscard]] study::ComparisonQuestion comparisonQuestion() const;
    [[nodiscard]] study::SpreadQuestion spreadQuestion() const;

    Document& m_document;
    SolveService& m_solver;
    Asked<study::ComparisonQuestion, std::vector<study::Compared>> m_comparison;
    Asked<study::SpreadQuestion, study::Spread> m_spread;
    mutable std::optional<std::shared_ptr<const study::Spread>> m_fresh; ///< as told last; nothing after a change
    QTimer m_idle;
    bool m_always = true;
    int m_idleFor = 1200;
};

} // namespace vetchling::app
