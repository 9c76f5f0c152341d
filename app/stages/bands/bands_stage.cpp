/// Bands: one row a band, with its curve, lowest SWR and resonance apart, and a sentence with the cure.
#include "app/plots/swr_chart.h"
#include "app/stages/bands/band_words.h"
#include "app/stages/stage.h"
#include "app/widgets/value_edit.h"
#include "core/bands/wanted.h"

#include <QCheckBox>
#include <QMouseEvent>
#include <QScrollArea>
#include <QTextLayout>

#include <algorithm>
#include <cmath>

namespace vetchling::app {
namespace {

constexpr double rowHeight = 128.0, chartLeft = 150.0, wordsWidth = 206.0;

class BandRows final : public Canvas {
    Q_OBJECT
public:
    explicit BandRows(ViewContext& context) : Canvas(context)
    {
        setObjectName(QStringLiteral("bandRows"));
        setMouseTracking(true);
        connect(&context.solver, &SolveService::curveReady, this, &BandRows::refresh);
        connect(&context.solver, &SolveService::detailReady, this, qOverload<>(&QWidget::update));
        connect(&context.solver, &SolveService::pinChanged, this, qOverload<>(&QWidget::update));
        connect(&context.document, &Document::designChanged, this, &BandRows::refresh);
        connect(&context.document, &Document::bandSelected, this, &BandRows::refresh);
    }

    void setReactances(bool on)
    {
        m_reactances = on;
        update();
    }

    /// Ids of the bands that have a row.
    std::vector<Id> rows() const
    {
        std::vector<Id> all;
        for (const WantedBand& w : m_context.document.design().operation.bands)
            if (w.wish != Wish::No || w.id == m_context.document.selectedBand())
                all.push_back(w.id);
        return all;
    }

    void refresh()
    {
        setMinimumHeight(int(rowHeight * double(rows().size())));
        update();
    }

    void render(Sketch& sketch, const QSizeF& size) override
    {
        sketch.painter().fillRect(QRectF({0, 0}, size), sketch.colours().paper);
        const CurvePointer curve = m_context.solver.curve();
        if (!curve || rows().empty()) {
            const QString missing = rows().empty()                      ? tr("No band is wanted yet: choose them at the right.")
                                    : !m_context.document.hasAntenna()  ? tr("No antenna yet: add one with + at the top.")
                                    : m_context.solver.faults().empty() ? tr("Being computed …")
                                                                        : tr("This shape cannot be computed.");
            sketch.text({0.5 * size.width(), 60.0}, missing, Qt::AlignHCenter | Qt::AlignTop, {sketch.colours().inkSoft, 14});
            return;
        }
        double top = 0.0;
        for (const Id& band : rows()) {
            const Coverage* coverage = curve->band(band);
            const WantedBand* wanted = findBand(m_context.document.design(), band);
            if (coverage && wanted)
                paintRow(sketch, *curve, *coverage, *wanted, QRectF(0, top, size.width(), rowHeight));
            top += rowHeight;
        }
    }

protected:
    void mousePressEvent(QMouseEvent* event) override
    {
        const int row = int(event->position().y() / rowHeight);
        if (const auto all = rows(); row >= 0 && row < int(all.size()))
            m_context.document.selectBand(all[std::size_t(row)]);
    }
    void mouseMoveEvent(QMouseEvent* event) override
    {
        m_pointer = event->position();
        update();
    }
    void leaveEvent(QEvent*) override
    {
        m_pointer = {-1, -1};
        update();
    }

private:
    SwrChart chartOf(const Band& band, const QRectF& row) const
    {
        const double pad = 0.55 * (band.to - band.from);
        return {QRectF(chartLeft, row.top() + 12, row.width() - chartLeft - wordsWidth - 18, row.height() - 40), band.from - pad,
                band.to + pad};
    }

    void paintRow(Sketch& sketch, const study::Curve& curve, const Coverage& coverage, const WantedBand& wanted, const QRectF& row)
    {
        const Colours& c = sketch.colours();
        const SwrChart chart = chartOf(coverage.band, row);
        if (wanted.id == m_context.document.selectedBand())
            sketch.painter().fillRect(QRectF(0, row.top() + 14, 3, row.height() - 42), c.petal);
        sketch.text({10, row.top() + 10}, QString::fromStdString(wanted.band.name), Qt::AlignLeft | Qt::AlignTop, {c.ink, 19, true});
        const int decimals = wanted.band.to - wanted.band.from < 5e4 ? 4 : 3;
        sketch.text({10, row.top() + 36},
                    QStringLiteral("%1 – %2").arg(wanted.band.from / 1e6, 0, 'f', decimals).arg(wanted.band.to / 1e6, 0, 'f', decimals),
                    Qt::AlignLeft | Qt::AlignTop, {c.inkSoft, 12});
        if (coverage.wholeTo > coverage.wholeFrom)
            sketch.text({10, row.top() + 70},
                        tr("%1 kHz under %2").arg((coverage.wholeTo - coverage.wholeFrom) / 1e3, 0, 'f', 0).arg(curve.question.limit),
                        Qt::AlignLeft | Qt::AlignTop, {c.inkFaint, 12});
        if (coverage.harmonic > 0.0)
            sketch.text({10, row.top() + 53}, tr("%1 × the dip ×1").arg(coverage.harmonic, 0, 'f', 2), Qt::AlignLeft | Qt::AlignTop,
                        {c.inkFaint, 12});

        const auto swrAt = [&](double f) { return curve.swrAt(f); };
        chart.frame(sketch, coverage.band.from, coverage.band.to, curve.question.limit, wanted.wish != Wish::No);
        if (coverage.solved())
            chart.hatchPastLimit(sketch, coverage.band.from, coverage.band.to, curve.question.limit, swrAt);
        if (const CurvePointer pinned = m_context.solver.pinnedCurve()) {
            QPen dashed(c.inkSoft, 1.0);
            dashed.setDashPattern({4, 3});
            chart.curve(
                sketch, [&](double f) { return pinned->swrAt(f); }, dashed);
        }
        chart.curve(sketch, swrAt, QPen(c.ink, 1.8));
        if (m_reactances)
            paintReactances(sketch, curve, chart);
        paintTicks(sketch, chart, coverage.band);
        if (coverage.solved())
            paintMarks(sketch, coverage, chart);
        paintWords(sketch, curve, coverage, wanted, row);
        paintReading(sketch, curve, chart);
    }

    void paintTicks(Sketch& sketch, const SwrChart& chart, const Band& band) const
    {
        const Colours& c = sketch.colours();
        const int decimals = band.to - band.from < 5e4 ? 3 : 2;
        for (double f : {band.from, band.to})
            sketch.text({chart.x(f), chart.area.bottom() + 3}, QString::number(f / 1e6, 'f', decimals), Qt::AlignHCenter | Qt::AlignTop,
                        {c.inkSoft, 12});
        for (double f : {chart.from, chart.to})
            sketch.label({chart.x(f), chart.area.bottom() + 3}, QString::number(f / 1e6, 'f', decimals), Qt::AlignHCenter | Qt::AlignTop,
                         {c.inkFaint, 12});
    }

    void paintMarks(Sketch& sketch, const Coverage& coverage, const SwrChart& chart) const
    {
        const Colours& c = sketch.colours();
        if (coverage.lowestSwr <= 5.0) {
            sketch.painter().setPen(QPen(c.ink, 1.2));
            sketch.painter().setBrush(c.petal);
            sketch.painter().drawEllipse(QPointF(chart.x(coverage.at), chart.y(coverage.lowestSwr)), 4.5, 4.5);
        }
        if (coverage.resonance && coverage.resonance->frequency > chart.from && coverage.resonance->frequency < chart.to)
            sketch.triangle({chart.x(coverage.resonance->frequency), chart.area.bottom() - 9}, c.skyPale, c.sky);
    }

    /// R and X over the same stretch, on an axis of their own from -100 to +200 ohm at the right.
    void paintReactances(Sketch& sketch, const study::Curve& curve, const SwrChart& chart) const
    {
        const Colours& c = sketch.colours();
        const auto y = [&](double ohm) {
            return chart.area.bottom() - chart.area.height() * (std::clamp(ohm, -100.0, 200.0) + 100.0) / 300.0;
        };
        QPainterPath r, x;
        const int steps = int(chart.area.width());
        for (int i = 0; i <= steps; ++i) {
            const double f = chart.from + (chart.to - chart.from) * i / steps;
            const Complex z = curve.atLine(f);
            const QPointF pr(chart.x(f), y(z.real())), px(chart.x(f), y(z.imag()));
            i == 0 ? r.moveTo(pr) : r.lineTo(pr);
            i == 0 ? x.moveTo(px) : x.lineTo(px);
        }
        sketch.painter().setBrush(Qt::NoBrush);
        sketch.painter().setPen(QPen(c.sky, 1.3));
        sketch.painter().drawPath(r);
        sketch.painter().setPen(QPen(c.brick, 1.3));
        sketch.painter().drawPath(x);
        for (double ohm : {-100.0, 0.0, 100.0, 200.0})
            sketch.text({chart.area.right() + 3, y(ohm)},
                        ohm == 200.0 ? tr("200 Ω") : QString::number(ohm).replace(QLatin1Char('-'), QStringLiteral("−")),
                        Qt::AlignLeft | Qt::AlignVCenter, {c.inkFaint, 11});
        const Complex end = curve.atLine(chart.from);
        sketch.label({chart.area.left() + 6, y(end.real()) - 2}, tr("R"), Qt::AlignLeft | Qt::AlignBottom, {c.sky, 12, true});
        sketch.label({chart.area.left() + 20, y(end.imag()) - 2}, tr("X"), Qt::AlignLeft | Qt::AlignBottom, {c.brick, 12, true});
    }

    void paintWords(Sketch& sketch, const study::Curve& curve, const Coverage& coverage, const WantedBand& wanted, const QRectF& row) const
    {
        const Colours& c = sketch.colours();
        const double left = row.right() - wordsWidth + 16;
        const bool good = coverage.lowestSwr <= curve.question.limit;
        if (coverage.solved()) {
            const QRectF figure = sketch.text({left, row.top() + 8}, swrText(coverage.lowestSwr), Qt::AlignLeft | Qt::AlignTop,
                                              {good ? c.leaf : c.brick, 19, true});
            sketch.text({figure.right() + 8, row.top() + 15}, tr("at %1 MHz").arg(coverage.at / 1e6, 0, 'f', 3),
                        Qt::AlignLeft | Qt::AlignTop, {c.inkSoft, 12});
            sketch.text({left, row.bottom() - 20}, tr("edges %1 and %2").arg(swrText(coverage.lowEdgeSwr), swrText(coverage.highEdgeSwr)),
                        Qt::AlignLeft | Qt::AlignTop, {c.inkFaint, 12});
        }
        const DetailPointer detail = m_context.solver.detail();
        const study::Cure* cure = detail ? detail->cureOf(wanted.id) : nullptr;
        const QString words =
            bandSentence(coverage, curve.question.limit,
                         cure ? cureSentence(*cure, detail->levers.front().lever, m_context.document.design()) : QString());
        sketch.painter().setFont(sketch.theme().font(12));
        sketch.painter().setPen(c.ink);
        sketch.painter().drawText(QRectF(left, row.top() + 36, wordsWidth - 20, 54), Qt::TextWordWrap, words);
    }

    void paintReading(Sketch& sketch, const study::Curve& curve, const SwrChart& chart) const
    {
        if (!chart.area.contains(m_pointer) || !curve.covers(chart.frequencyAt(m_pointer.x())))
            return;
        const Colours& c = sketch.colours();
        const double f = chart.frequencyAt(m_pointer.x());
        const Complex z = curve.atLine(f);
        sketch.line({m_pointer.x(), chart.area.top()}, {m_pointer.x(), chart.area.bottom()}, c.inkSoft);
        const QString words =
            tr("%1 MHz  SWR %2  %3").arg(f / 1e6, 0, 'f', 3).arg(swrText(curve.swrAt(f)), impedanceText(z.real(), z.imag()));
        const QStringList lines{words};
        sketch.card({m_pointer.x() - 0.5 * sketch.cardSize(lines).width(), chart.area.top() - 9}, lines,
                    QRectF(chart.area.left(), 0, chart.area.width(), height()));
    }

    bool m_reactances = false;
    QPointF m_pointer{-1, -1};
};

class BandsStage final : public Stage {
    Q_OBJECT
public:
    BandsStage(ViewContext& context, QObject* parent) : Stage(context, parent), m_rows(new BandRows(context))
    {
        addConfigurations();
        auto* scroll = new QScrollArea;
        scroll->setWidgetResizable(true);
        scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
        scroll->setWidget(m_rows);
        scroll->setObjectName(QStringLiteral("bandScroll"));
        scroll->setAccessibleName(tr("Bands"));
        m_page->body()->addWidget(scroll, 1);
        auto* reactances = new QCheckBox(tr("R and X"));
        reactances->setObjectName(QStringLiteral("showReactances"));
        connect(reactances, &QCheckBox::toggled, m_rows, &BandRows::setReactances);
        m_page->header()->addWidget(reactances, 0, Qt::AlignTop);
    }

    QString id() const override { return QStringLiteral("bands"); }
    QString name() const override { return tr("Bands"); }
    Canvas* canvas() override { return m_rows; }

    QString summary() const override
    {
        const CurvePointer curve = solver().curve();
        if (!curve)
            return !document().hasAntenna() ? tr("no antenna yet") : solver().faults().empty() ? tr("being computed") : tr("not possible");
        if (curve->bandsWished() == 0)
            return tr("no band wanted yet");
        return tr("%1 of %2 bands under %3").arg(curve->bandsUnderLimit()).arg(curve->bandsWished()).arg(curve->question.limit);
    }

    QString tableText() const override
    {
        QString out = tr("band\tlowest SWR\tat MHz\tR\tX\tpart under limit\tedges\n");
        const CurvePointer curve = solver().curve();
        for (const Coverage& c : curve ? curve->bands : std::vector<Coverage>())
            if (c.solved())
                out += QStringLiteral("%1\t%2\t%3\t%4\t%5\t%6\t%7 %8\n")
                           .arg(QString::fromStdString(c.band.name))
                           .arg(c.lowestSwr, 0, 'f', 2)
                           .arg(c.at / 1e6, 0, 'f', 3)
                           .arg(c.impedance.real(), 0, 'f', 1)
                           .arg(c.impedance.imag(), 0, 'f', 1)
                           .arg(c.shareUnderLimit, 0, 'f', 2)
                           .arg(c.lowEdgeSwr, 0, 'f', 2)
                           .arg(c.highEdgeSwr, 0, 'f', 2);
        return out;
    }

    void refresh() override
    {
        refreshConfigurations();
        const Operation& op = document().design().operation;
        QString key;
        for (const WantedBand& w : op.bands)
            key += QString::fromStdString(w.id + "|" + w.band.name + "|");
        if (key != m_shown) {
            m_shown = key;
            buildLedger();
        }
        m_page->setTitle(tr("Bands"));
        m_page->setSentence(sentence());
        for (std::size_t i = 0; i < m_wishes.size(); ++i)
            m_wishes[i]->setCurrentIndex(int(op.bands[i].wish));
        for (std::size_t i = 0; i < m_context.bandPlans.size(); ++i)
            if (m_context.bandPlans[i].id == op.bandPlan)
                m_region->setCurrentIndex(int(i));
        m_limit->setValue(op.swrLimit, system());
        m_power->setValue(op.power, system());
        m_match->setText(solver().curve() ? resonanceSentence(*solver().curve(), document().selectedBand()) : QString());
        m_rows->refresh();
    }

private:
    QString sentence() const
    {
        if (const QString fault = faultSentence(); !fault.isEmpty())
            return tr("This shape cannot be computed: %1.").arg(fault);
        const CurvePointer curve = solver().curve();
        if (!document().hasAntenna())
            return tr("Add an antenna with + at the top.");
        if (!curve)
            return tr("Being computed …");
        if (curve->bandsWished() == 0)
            return tr("No band is wanted yet: choose them at the right, or put in a plan's bands.");
        return tr("%1 of %2 wanted bands dip under %3.  Circle: lowest SWR.  Triangle: resonance, no reactance.  Hatched: past your limit.")
            .arg(curve->bandsUnderLimit())
            .arg(curve->bandsWished())
            .arg(curve->question.limit);
    }

    void buildLedger()
    {
        m_ledger->clear();
        m_wishes.clear();
        m_ledger->heading(tr("What you want to work"));
        QStringList regions;
        for (const BandPlan& plan : m_context.bandPlans)
            regions << QString::fromStdString(plan.name).section(QLatin1Char('('), 0, 0).trimmed();
        m_region = m_ledger->choice(tr("Allocations"), regions, QStringLiteral("bandPlan"));
        QPushButton* put = m_ledger->button(tr("Put in its bands"), QStringLiteral("putPlan"));
        connect(m_region, &QComboBox::activated, this, &BandsStage::takePlan);
        connect(put, &QPushButton::clicked, this, [this] { takePlan(m_region->currentIndex()); });
        const auto& bands = document().design().operation.bands;
        for (std::size_t i = 0; i < bands.size(); ++i) {
            QComboBox* wish = m_ledger->choice(QString::fromStdString(bands[i].band.name), {tr("not wanted"), tr("nice"), tr("must")},
                                               QStringLiteral("wish%1").arg(i));
            connect(wish, &QComboBox::activated, this, [this, id = bands[i].id](int index) {
                document().edit(tr("change a wish"), {}, [&](Design& d) {
                    if (WantedBand* band = findBand(d, id))
                        band->wish = Wish(index);
                });
            });
            m_wishes.push_back(wish);
        }
        m_limit = m_ledger->value(tr("SWR limit"), units::Quantity::Plain, QStringLiteral("swrLimit"));
        m_limit->setRange(1.05, 20.0);
        connect(m_limit, &ValueEdit::edited, this, [this](double value, const QString&, bool dragging) {
            document().edit(tr("change SWR limit"), dragging ? QStringLiteral("limit") : QString(),
                            [&](Design& d) { d.operation.swrLimit = value; });
        });
        m_power = m_ledger->value(tr("Power"), units::Quantity::Power, QStringLiteral("power"));
        m_power->setRange(0.001, 1e5);
        connect(m_power, &ValueEdit::edited, this, [this](double value, const QString&, bool dragging) {
            document().edit(tr("change power"), dragging ? QStringLiteral("power") : QString(),
                            [&](Design& d) { d.operation.power = value; });
        });
        m_ledger->line();
        addOwnRange();
        m_ledger->line();
        m_ledger->heading(tr("Resonance or match?"));
        m_match = m_ledger->note();
        m_ledger->line();
        if (!m_context.bandPlans.empty())
            m_ledger->note(tr("Band edges: %1, %2. Allocations are not a licence: check your own.")
                               .arg(QString::fromStdString(m_context.bandPlans.front().source))
                               .arg(m_context.bandPlans.front().year));
        m_ledger->finish();
    }

    void addOwnRange()
    {
        m_ledger->heading(tr("Own range"));
        ValueEdit* from = m_ledger->value(tr("From"), units::Quantity::Frequency, QStringLiteral("ownFrom"));
        ValueEdit* to = m_ledger->value(tr("To"), units::Quantity::Frequency, QStringLiteral("ownTo"));
        for (ValueEdit* edit : {from, to})
            edit->setRange(lowestFrequency, highestFrequency);
        from->setValue(13.5e6, system());
        to->setValue(13.6e6, system());
        QPushButton* add = m_ledger->button(tr("Add this range"), QStringLiteral("addRange"));
        m_rangeNote = m_ledger->caution({});
        m_rangeNote->setObjectName(QStringLiteral("rangeNote"));
        connect(add, &QPushButton::clicked, this, [this, from, to] {
            if (from->confirm() && to->confirm())
                addRange(from->value(), to->value());
        });
    }

    void addRange(double from, double to)
    {
        const bool overlaps = overlapsAny(document().design().operation.bands, from, to);
        m_rangeNote->setText(overlaps       ? tr("That range overlaps a band that is already there; choose another.")
                             : !(to > from) ? tr("The upper end must be above the lower end.")
                                            : QString());
        if (m_rangeNote->text().isEmpty())
            document().edit(tr("add a range"), {}, [&](Design& d) { vetchling::addRange(d.operation.bands, from, to, Wish::Nice); });
    }

    /// New edges for bands of the same name; the plan's other bands come in, not wanted yet. Wishes stay.
    void takePlan(int index)
    {
        if (index < 0)
            return;
        const BandPlan plan = m_context.bandPlans[std::size_t(index)];
        document().edit(tr("change allocations"), {}, [&](Design& d) {
            d.operation.bandPlan = plan.id;
            putIn(plan, d.operation.bands);
        });
    }

    BandRows* m_rows;
    QString m_shown = QStringLiteral("none");
    std::vector<QComboBox*> m_wishes;
    QComboBox* m_region = nullptr;
    ValueEdit *m_limit = nullptr, *m_power = nullptr;
    QLabel *m_match = nullptr, *m_rangeNote = nullptr;
};

} // namespace

std::unique_ptr<Stage> makeBandsStage(ViewContext& context, QObject* parent) { return std::make_unique<BandsStage>(context, parent); }

} // namespace vetchling::app

#include "bands_stage.moc"
