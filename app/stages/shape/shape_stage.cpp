/// Shape: the antenna to scale, where it hangs, how long it is and why, and where the power goes.
#include "app/plots/scene/scene.h"
#include "app/stages/shape/choices.h"
#include "app/stages/shape/length_card.h"
#include "app/stages/shape/named_lengths.h"
#include "app/stages/shape/power_card.h"
#include "app/stages/shape/tune_panel.h"
#include "app/stages/shape/variants_chart.h"
#include "app/stages/shape/variants_panel.h"
#include "app/stages/shape/wire_rows.h"
#include "app/stages/view_buttons.h"
#include "app/view/old_figures.h"
#include "app/view/sketch.h"
#include "app/view/words.h"
#include "app/widgets/choice.h"
#include "app/widgets/value_edit.h"
#include "core/tune/slips.h"

#include <QCheckBox>

#include <algorithm>
#include <cmath>

namespace vetchling::app {
namespace {

const std::string placeGroup = shapes::standsGroup;
const std::string otherwise = "tune otherwise"; // of m_open

class ShapeStage final : public Stage {
    Q_OBJECT
public:
    ShapeStage(ViewContext& context, QObject* parent)
        : Stage(context, parent), m_scene(new Scene(context)), m_choices(context), m_variants(new VariantsChart(context)),
          m_views(*m_page, QStringLiteral("shapeViews"), this), m_tuning(context.document, context.solver)
    {
        context.add(m_tuning.waitings());
        context.add(context.variants.waitings());
        paleWhileOld(context.variants.waitings(), m_variants);
        connect(m_variants, &VariantsChart::chosen, &context.document, &Document::setVariant);
        connect(&context.variants, &VariantsDesk::comparisonReady, this, [this] { refreshVariants(); });
        connect(&context.variants, &VariantsDesk::spreadReady, this, [this] { refreshVariants(); });
        connect(&m_choices, &Choices::ready, this, [this] { refreshChoices(); });
        addConfigurations();
        tellsFigures({});
        addOptions();
        addViews();
    }

    QString id() const override { return QStringLiteral("shape"); }
    QString name() const override { return tr("Shape"); }
    Canvas* canvas() override
    {
        return choicesShown() ? static_cast<Canvas*>(m_choices.chart()) : variantsShown() ? static_cast<Canvas*>(m_variants) : m_scene;
    }
    QString tableText() const override { return variantsShown() ? m_variants->tableText() : QString(); }

    QString summary() const override
    {
        if (!document().hasAntenna())
            return tr("no antenna yet");
        const Antenna& a = document().antenna();
        const AntennaModel::Ruled* shown = LengthCard::ruledLength(m_context);
        if (!shown)
            return tr("kept as it is");
        const shapes::ParameterSpec* spec = family().spec(a.shape, shown->what.parameter);
        return tr("%1 %2").arg(valueWords(family().value(a.shape, spec->key), spec->quantity, system()), coreWords(shown->what.name));
    }

    void refresh() override
    {
        refreshConfigurations();
        if (!document().hasAntenna()) {
            m_page->setTitle(tr("Shape"));
            m_page->setSentence(tr("Add an antenna with + at the top."));
            clearLedger();
            m_layout.clear();
            m_variants->show(nullptr, {});
            return;
        }
        const Antenna& a = document().antenna();
        if (variantsShown()) {
            refreshChoices();
            refreshVariants();
            return;
        }
        m_page->setTitle(document().shownName());
        m_page->setSentence(sentence());
        refreshChoices();
        std::string layout = a.shape.family + "|" + family().layout(a.shape);
        for (const NamedLength& n : a.named)
            layout += "|" + n.name;
        if (m_layout != layout || m_antennaShown != document().current())
            buildLedger(a, layout);
        if (!m_lengths)
            return; // a family of a newer program has no inputs
        for (const auto& [key, edit] : m_edits) {
            edit->setDesignFrequency(a.shape.designFrequency);
            edit->setNamedLengths(contextOf(a).lengths);
            const auto typed = a.typed.find(key);
            edit->setValue(family().value(a.shape, key), system(),
                           typed == a.typed.end() ? QString() : QString::fromStdString(typed->second));
        }
        for (const auto& [key, box] : m_boxes)
            box->setCurrentIndex(int(std::lround(family().value(a.shape, key))));
        refreshSlips(a);
        m_named->refresh();
        m_wire->refresh();
        m_lengths->refresh();
        m_panel->refresh();
        m_power->refresh();
        m_rulesNote->setText(m_lengths->rulesText());
        m_remarks->setText(remarksText());
        m_remarks->setVisible(!m_remarks->text().isEmpty());
        m_caution->setText(m_power->cautionText());
    }

    QString alarm() const override
    {
        const AntennaModel* model = m_context.models.current();
        for (const advice::Finding& f : model ? model->findings : std::vector<advice::Finding>())
            if (f.everywhere)
                return coreWords(f.brief, system());
        return {};
    }

    void showView(const QString& view) override
    {
        if (view == QLatin1String("side"))
            m_views.showPlace(int(SceneView::Side));
        if (view == QLatin1String("plan"))
            m_views.showPlace(int(SceneView::Plan));
    }

private:
    const shapes::Family& family() const { return document().family(); }

    void addViews()
    {
        m_views.add(tr("Side"), QStringLiteral("view0"), m_scene);
        m_views.add(tr("Plan"), QStringLiteral("view1"), m_scene);
        m_views.add(tr("Turn"), QStringLiteral("view2"), m_scene);
        m_views.add(tr("Trade"), QStringLiteral("viewTrade"), m_choices.chart(), tr("What it costs to make it shorter"));
        m_views.add(tr("Radials"), QStringLiteral("viewRadials"), m_choices.chart(), tr("Few long radials, or many short ones"));
        m_views.add(tr("Variants"), QStringLiteral("viewVariants"), m_variants,
                    tr("Other ways to build it side by side, and how sure the figures are"));
        connect(&m_views, &ViewButtons::chosen, this, [this] {
            constexpr SceneView scenes[] = {SceneView::Side, SceneView::Plan, SceneView::Turn};
            if (m_views.place() < firstChoice)
                m_scene->setView(scenes[m_views.place()]);
            refresh();
        });
    }

    void addOptions()
    {
        m_pair = new Choice;
        m_pair->setObjectName(QStringLiteral("tradePair"));
        m_pair->setAccessibleName(tr("What is traded"));
        m_pair->setSizeAdjustPolicy(QComboBox::AdjustToContents);
        connect(m_pair, &QComboBox::activated, this, [this](int pair) {
            m_choices.setPair(std::size_t(pair));
            refresh();
        });
        m_page->addOption(m_pair);
        m_voltage = new QCheckBox(tr("Voltage"));
        m_voltage->setObjectName(QStringLiteral("showVoltage"));
        m_voltage->setToolTip(tr("The ribbon shows voltage instead of current"));
        connect(m_voltage, &QCheckBox::toggled, m_scene, &Scene::setVoltage);
        m_page->addOption(m_voltage);
    }

    [[nodiscard]] bool variantsShown() const { return m_views.current() == m_variants; }

    /// The view Variants has a ledger of its own.
    void refreshVariants()
    {
        if (!variantsShown() || !document().hasAntenna())
            return;
        m_context.variants.wantComparison();
        m_context.variants.wantSpread();
        if (const std::string layout = VariantsPanel::layout(document()); m_layout != layout) {
            clearLedger();
            m_layout = layout;
            m_variantsPanel = std::make_unique<VariantsPanel>(m_context, *m_ledger, nullptr);
            m_ledger->finish();
        }
        m_variantsPanel->refresh();
        m_variants->show(m_context.variants.comparison(), document().variant());
        m_page->setTitle(tr("Variants of %1").arg(QString::fromStdString(document().antenna().name)));
        m_page->setSentence(VariantsPanel::sentence(m_context));
    }

    void buildLedger(const Antenna& a, const std::string& layout)
    {
        m_layout = layout;
        m_antennaShown = document().current();
        clearLedger();
        if (family().tuned(a.shape).empty()) {
            m_ledger->note(coreWords(family().summary()));
            m_ledger->finish();
            return;
        }
        m_remarks = m_ledger->note();
        m_remarks->setObjectName(QStringLiteral("remarks"));
        std::vector<std::string> groups; // in the order they first appear; the place comes last
        for (const shapes::ParameterSpec& spec : family().specs(a.shape))
            if (std::find(groups.begin(), groups.end(), spec.group) == groups.end() && spec.group != placeGroup)
                groups.push_back(spec.group);
        const auto beforeCard =
            std::stable_partition(groups.begin(), groups.end(), [&](const std::string& group) { return holdsLengths(group); });
        for (auto group = groups.begin(); group != groups.end(); ++group) {
            if (group == beforeCard)
                addCards();
            addGroup(*group);
        }
        if (beforeCard == groups.end())
            addCards();
        m_named = std::make_unique<NamedLengths>(m_context, *m_ledger, nullptr);
        m_ledger->line();
        m_ledger->fold(tr("Wire"), QStringLiteral("fold wire"), true);
        m_wire = std::make_unique<WireRows>(m_context, *m_ledger, nullptr);
        m_ledger->endFold();
        m_ledger->line();
        addGroup(placeGroup);
        m_rulesNote = m_ledger->note();
        m_caution = m_ledger->caution({});
        m_ledger->finish();
    }

    /// What stands above the length card: where it hangs, and what is tuned.
    bool holdsLengths(const std::string& group) const
    {
        const shapes::AntennaShape& shape = document().antenna().shape;
        if (group == shapes::hangsGroup || group == shapes::lengthGroup)
            return true;
        const auto tuned = family().tuned(shape);
        return std::any_of(tuned.begin(), tuned.end(),
                           [&](const shapes::TunedLength& t) { return family().spec(shape, t.parameter)->group == group; });
    }

    int rowsOf(const std::string& group) const
    {
        const auto& specs = family().specs(document().antenna().shape);
        return int(std::count_if(specs.begin(), specs.end(), [&](const shapes::ParameterSpec& s) { return s.group == group; }));
    }

    /// Few groups are: those above the card as far as it stays in sight, and below it those with few rows that are not the place.
    bool opensAtFirst(const std::string& group) const
    {
        constexpr int roomAbove = 10, few = 4; // rows
        if (!holdsLengths(group))
            return group != placeGroup && rowsOf(group) <= few;
        return group != shapes::hangsGroup || rowsOf(shapes::hangsGroup) + rowsOf(shapes::lengthGroup) <= roomAbove;
    }

    void addGroup(const std::string& group)
    {
        const auto chosen = m_open.find(group); // what was folded or opened stays so, whatever the antenna
        QToolButton* heading = m_ledger->fold(coreWords(group), QStringLiteral("fold ") + QString::fromStdString(group),
                                              chosen == m_open.end() ? opensAtFirst(group) : chosen->second);
        connect(heading, &QToolButton::toggled, this, [this, group](bool open) { m_open[group] = open; });
        for (const shapes::ParameterSpec& spec : family().specs(document().antenna().shape))
            if (spec.group == group)
                addParameter(spec);
        if (group == placeGroup && family().flipped(document().antenna().shape)) {
            QPushButton* flip = m_ledger->button(tr("Flip ends"), QStringLiteral("flipEnds"));
            flip->setToolTip(tr("The same wire in the same place, fed from its other end"));
            connect(flip, &QPushButton::clicked, this, [this] { document().flipEnds(); });
        }
        m_ledger->endFold();
        m_ledger->line();
    }

    /// The length card, the tuning by hand, and where the power goes.
    void addCards()
    {
        m_lengths = std::make_unique<LengthCard>(m_context, *m_ledger, nullptr);
        m_ledger->line();
        const auto chosen = m_open.find(otherwise);
        QToolButton* heading = m_ledger->fold(tr("Tune otherwise"), QStringLiteral("fold tune"), chosen != m_open.end() && chosen->second);
        connect(heading, &QToolButton::toggled, this, [this](bool open) { m_open[otherwise] = open; });
        m_panel = std::make_unique<TunePanel>(m_context, m_tuning, *m_ledger, nullptr);
        m_ledger->endFold();
        m_ledger->line();
        m_power = std::make_unique<PowerCard>(m_context, *m_ledger, nullptr);
        m_ledger->line();
    }

    /// The cards go before the rows they stand on.
    void clearLedger()
    {
        m_edits.clear();
        m_boxes.clear();
        m_lengths.reset();
        m_named.reset();
        m_panel.reset();
        m_power.reset();
        m_wire.reset();
        m_variantsPanel.reset();
        m_ledger->clear();
    }

    void addParameter(const shapes::ParameterSpec& spec)
    {
        const QString label = coreWords(spec.label), object = QString::fromStdString(spec.key);
        if (!spec.choices.empty()) {
            QStringList words;
            for (const std::string& w : spec.choices)
                words << coreWords(w);
            QComboBox* box = m_ledger->choice(label, words, object);
            box->setToolTip(coreWords(spec.help));
            connect(box, &QComboBox::activated, this, [this, key = spec.key](int index) { document().setParameter(key, index, {}); });
            m_boxes[spec.key] = box;
            return;
        }
        ValueEdit* edit = m_ledger->value(label, spec.quantity, object);
        edit->setRange(spec.lowest, spec.highest);
        edit->setHelp(coreWords(spec.help));
        connect(edit, &ValueEdit::edited, this, [this, key = spec.key](double value, const QString& typed, bool dragging) {
            document().setParameter(key, value, typed, dragging);
        });
        m_edits[spec.key] = edit;
    }

    /// A typed length that looks like a slip of the hand is asked about, quietly.
    void refreshSlips(const Antenna& a)
    {
        const DetailPointer detail = solver().detail();
        for (const shapes::TunedLength& t : family().tuned(a.shape)) {
            const auto edit = m_edits.find(t.parameter);
            if (edit == m_edits.end() || family().spec(a.shape, t.parameter)->quantity != units::Quantity::Length)
                continue;
            const std::vector<shapes::RuleOfThumb> rules = family().rules(a.shape, t);
            double belongs = rules.empty() ? 0.0 : rules.front().value;
            for (const study::Length& l : detail ? detail->lengths : std::vector<study::Length>())
                if (l.what.parameter == t.parameter && l.solved)
                    belongs = *l.solved;
            const auto question =
                a.typed.contains(t.parameter) ? slipQuestion(family().value(a.shape, t.parameter), belongs, rules) : std::nullopt;
            edit->second->ask(question ? coreWords(*question, system()) : QString());
        }
    }

    QString bandName(const Id& id) const
    {
        const WantedBand* band = findBand(document().design(), id);
        return band ? QString::fromStdString(band->band.name) : QString();
    }

    bool choicesShown() const { return m_views.current() == m_choices.chart(); }

    /// Only some antennas have such choices; another one goes back to the side view.
    void refreshChoices()
    {
        for (Choices::Kind kind : {Choices::Kind::Trade, Choices::Kind::Radials})
            if (const int place = placeOf(kind); !m_choices.offers(kind) && place == m_views.place())
                m_scene->setView(SceneView::Side), m_views.setOffered(place, false);
            else
                m_views.setOffered(place, m_choices.offers(kind));
        const bool trading = choicesShown() && kind() == Choices::Kind::Trade;
        if (const QStringList pairs = trading ? m_choices.pairs() : QStringList(); pairs != m_pairs) {
            m_pairs = pairs;
            m_choices.setPair(0);
            m_pair->clear();
            m_pair->addItems(pairs);
        }
        m_pair->setVisible(!m_pairs.isEmpty());
        m_voltage->setVisible(!choicesShown() && !variantsShown());
        if (choicesShown())
            m_page->setSentence(m_choices.refresh(kind()));
    }

    static constexpr int firstChoice = 3; ///< place among the views
    static int placeOf(Choices::Kind kind) { return kind == Choices::Kind::Trade ? firstChoice : firstChoice + 1; }
    /// Of the choices that are looked at.
    [[nodiscard]] Choices::Kind kind() const { return m_views.place() == firstChoice ? Choices::Kind::Trade : Choices::Kind::Radials; }

    QString remarksText() const
    {
        const AntennaModel* model = m_context.models.current();
        QStringList words;
        for (const Text& remark : model ? model->remarks : std::vector<Text>())
            words << coreWords(remark, system());
        QString all = words.isEmpty() ? QString() : tr("In words: %1.").arg(words.join(QStringLiteral("; ")));
        if (model && model->built && family().withCorner(document().antenna().shape, model->built->feedPoint))
            all += tr(" Double-click the wire in the picture for a corner, or beyond its end for a further piece; Delete removes the "
                      "corner of the chosen ring.");
        return all;
    }

    QString sentence() const
    {
        if (const QString fault = faultSentence(); !fault.isEmpty())
            return tr("This cannot be computed: %1.").arg(fault);
        const CurvePointer curve = solver().curve();
        if (!curve)
            return tr("Being computed over your soil …");
        QString words = tr("Dip ×1 at %1, SWR %2").arg(frequencyWords(curve->fundamental), swrText(curve->swrAt(curve->fundamental)));
        words +=
            curve->resonance
                ? tr("; X = 0 at %1, %2 Ω").arg(curve->resonance->frequency / 1e6, 0, 'f', 3).arg(curve->resonance->resistance, 0, 'f', 0)
                : tr("; nowhere resonant near %1").arg(frequencyWords(document().antenna().shape.designFrequency));
        if (const Coverage* c = curve->band(document().selectedBand()); c && c->solved())
            words += c->shareUnderLimit > 0.0
                         ? tr(" · under %1 from %2 to %3")
                               .arg(curve->question.limit)
                               .arg(c->wholeFrom / 1e6, 0, 'f', 3)
                               .arg(c->wholeTo / 1e6, 0, 'f', 3)
                         : tr(" · SWR %1 at best on %2").arg(swrText(c->lowestSwr), QString::fromStdString(c->band.name));
        if (const auto [best, worst] = curve->favoured(); !best.empty())
            words +=
                tr(" · It favours %1: SWR %2 there, %3 on %4")
                    .arg(bandName(best), swrText(curve->band(best)->lowestSwr), swrText(curve->band(worst)->lowestSwr), bandName(worst));
        const AntennaModel* model = m_context.models.current();
        if (model && !model->notes.empty()) {
            words += tr(" · Out of range at the mark: %1.").arg(coreWords(model->notes.front().message, system()));
            if (const int more = int(model->notes.size()) - 1; more > 0)
                words += tr(" So is it at %n other places.", nullptr, more);
        }
        return words;
    }

    Scene* m_scene;
    Choices m_choices;
    VariantsChart* m_variants;
    ViewButtons m_views;
    std::unique_ptr<VariantsPanel> m_variantsPanel; ///< while that view is shown
    QComboBox* m_pair = nullptr;
    QCheckBox* m_voltage = nullptr;
    QStringList m_pairs;  ///< on show in it
    std::string m_layout; ///< family and layout the ledger was made for
    Id m_antennaShown;
    std::map<std::string, ValueEdit*> m_edits;
    std::map<std::string, QComboBox*> m_boxes;
    std::map<std::string, bool> m_open;    ///< groups that were folded or opened by hand
    std::unique_ptr<LengthCard> m_lengths; ///< null for a family of a newer program, which has no inputs
    std::unique_ptr<NamedLengths> m_named;
    TuneDesk m_tuning;
    std::unique_ptr<TunePanel> m_panel;
    std::unique_ptr<PowerCard> m_power;
    std::unique_ptr<WireRows> m_wire;
    QLabel *m_remarks = nullptr, *m_rulesNote = nullptr, *m_caution = nullptr;
};

} // namespace

std::unique_ptr<Stage> makeShapeStage(ViewContext& context, QObject* parent) { return std::make_unique<ShapeStage>(context, parent); }

} // namespace vetchling::app

#include "shape_stage.moc"
