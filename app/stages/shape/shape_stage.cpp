/// Shape: the antenna to scale, where it hangs, how long it is and why, and where the power goes.
#include "app/plots/scene.h"
#include "app/plots/sketch.h"
#include "app/stages/stage.h"
#include "app/widgets/bars.h"
#include "app/widgets/value_edit.h"
#include "core/wire/range.h"
#include "core/workshop/cut_list.h"

#include <QButtonGroup>
#include <QToolButton>

#include <algorithm>
#include <cmath>

namespace vetchling::app {
namespace {

const std::string placeGroup = "Where it stands";

class ShapeStage final : public Stage {
    Q_OBJECT
public:
    ShapeStage(StageContext& context, QObject* parent) : Stage(context, parent), m_scene(new Scene(context))
    {
        m_page->body()->addWidget(m_scene, 1);
        addViewButtons();
    }

    QString id() const override { return QStringLiteral("shape"); }
    QString name() const override { return tr("Shape"); }
    Canvas* canvas() override { return m_scene; }

    QString summary() const override
    {
        if (!document().hasAntenna())
            return tr("no antenna yet");
        const Antenna& a = document().antenna();
        const shapes::Family* family = shapes::findFamily(a.shape.family);
        const shapes::ParameterSpec* spec = family->spec(family->tunedParameter());
        return tr("%1 %2").arg(QString::fromStdString(units::format(family->value(a.shape, spec->key), spec->quantity, system())),
                               QString::fromStdString(family->tunedName()));
    }

    void refresh() override
    {
        if (!document().hasAntenna()) {
            m_page->setTitle(tr("Shape"));
            m_page->setSentence(tr("Add an antenna with + at the top."));
            m_ledger->clear();
            m_family.clear();
            return;
        }
        const Antenna& a = document().antenna();
        if (m_family != a.shape.family || m_antennaShown != document().current())
            buildLedger(a);
        m_page->setTitle(QString::fromStdString(a.name));
        m_page->setSentence(sentence());
        for (const auto& [key, edit] : m_edits) {
            edit->setDesignFrequency(a.shape.designFrequency);
            const auto typed = a.typed.find(key);
            edit->setValue(family().value(a.shape, key), system(),
                           typed == a.typed.end() ? QString() : QString::fromStdString(typed->second));
        }
        for (const auto& [key, box] : m_choices)
            box->setCurrentIndex(int(std::lround(family().value(a.shape, key))));
        m_frequency->setValue(a.shape.designFrequency, system());
        m_diameter->setValue(a.shape.wire.diameter, system());
        m_jacket->setValue(a.shape.wire.jacket, system());
        for (std::size_t i = 0; i < m_context.conductors.size(); ++i)
            if (m_context.conductors[i].id == a.shape.wire.conductor)
                m_conductor->setCurrentIndex(int(i));
        refreshLengths(a);
        refreshPower();
    }

private:
    const shapes::Family& family() const { return *shapes::findFamily(document().antenna().shape.family); }

    void addViewButtons()
    {
        auto* group = new QButtonGroup(this);
        auto* box = new QHBoxLayout;
        box->setSpacing(0);
        const std::pair<QString, Scene::View> views[] = {
            {tr("Side"), Scene::View::Side}, {tr("Plan"), Scene::View::Plan}, {tr("Turn"), Scene::View::Turn}};
        for (const auto& [words, view] : views) {
            auto* button = new QToolButton;
            button->setText(words);
            button->setProperty("segment", true);
            button->setCheckable(true);
            button->setChecked(view == Scene::View::Side);
            button->setObjectName(QStringLiteral("view%1").arg(int(view)));
            button->setAccessibleName(tr("%1 view").arg(words));
            group->addButton(button);
            box->addWidget(button);
            connect(button, &QToolButton::clicked, m_scene, [this, view = view] { m_scene->setView(view); });
        }
        m_page->header()->addLayout(box);
        m_page->header()->setAlignment(box, Qt::AlignTop);
    }

    void buildLedger(const Antenna& a)
    {
        m_family = a.shape.family;
        m_antennaShown = document().current();
        m_edits.clear();
        m_choices.clear();
        m_ledger->clear();
        std::vector<std::string> groups; // in the order they first appear; the place comes last
        for (const shapes::ParameterSpec& spec : family().parameters())
            if (std::find(groups.begin(), groups.end(), spec.group) == groups.end() && spec.group != placeGroup)
                groups.push_back(spec.group);
        for (const std::string& group : groups) {
            addGroup(group);
            m_ledger->line();
        }
        addLengthCard();
        m_ledger->line();
        addWire();
        m_ledger->line();
        addGroup(placeGroup);
        m_ledger->line();
        m_rulesNote = m_ledger->note();
        m_caution = m_ledger->caution({});
        m_ledger->finish();
    }

    void addGroup(const std::string& group)
    {
        m_ledger->heading(QString::fromStdString(group));
        for (const shapes::ParameterSpec& spec : family().parameters())
            if (spec.group == group)
                addParameter(spec);
    }

    void addLengthCard()
    {
        m_lengthHeading = new QLabel(m_ledger);
        m_lengthHeading->setProperty("role", "heading");
        m_ledger->add(m_lengthHeading);
        m_bars = new CompareBars(m_context.theme, m_ledger);
        m_bars->setObjectName(QStringLiteral("lengthCard"));
        m_ledger->add(m_bars);
        m_lengthNote = m_ledger->note();
        m_lengthNote->setObjectName(QStringLiteral("lengthNote"));
        m_goal = m_ledger->choice(tr("Tune for"), {tr("resonance, X = 0"), tr("lowest SWR")}, QStringLiteral("tuneGoal"));
        connect(m_goal, &QComboBox::activated, this, [this](int index) {
            document().editAntenna(tr("change what to tune for"), {}, [&](Antenna& a) { a.tuneForLowestSwr = index == 1; });
        });
        m_tune = m_ledger->button({}, QStringLiteral("tuneButton"), true);
        connect(m_tune, &QPushButton::clicked, this, &ShapeStage::takeTuned);
        m_ledger->line();
        m_powerHeading = new QLabel(m_ledger);
        m_powerHeading->setProperty("role", "heading");
        m_ledger->add(m_powerHeading);
        m_power = new ShareBar(m_context.theme, m_ledger);
        m_ledger->add(m_power);
        m_certainty = m_ledger->note();
        m_certainty->setObjectName(QStringLiteral("certaintyNote"));
    }

    void addParameter(const shapes::ParameterSpec& spec)
    {
        const QString label = QString::fromStdString(spec.label), object = QString::fromStdString(spec.key);
        if (!spec.choices.empty()) {
            QStringList words;
            for (const std::string& w : spec.choices)
                words << QString::fromStdString(w);
            QComboBox* box = m_ledger->choice(label, words, object);
            box->setToolTip(QString::fromStdString(spec.help));
            connect(box, &QComboBox::activated, this, [this, key = spec.key](int index) { document().setParameter(key, index, {}); });
            m_choices[spec.key] = box;
            return;
        }
        ValueEdit* edit = m_ledger->value(label, spec.quantity, object);
        edit->setRange(spec.lowest, spec.highest);
        edit->setHelp(QString::fromStdString(spec.help));
        connect(edit, &ValueEdit::edited, this, [this, key = spec.key](double value, const QString& typed, bool dragging) {
            document().setParameter(key, value, typed, dragging);
        });
        m_edits[spec.key] = edit;
    }

    void addWire()
    {
        m_ledger->heading(tr("Wire"));
        QStringList names;
        for (const files::Conductor& c : m_context.conductors)
            names << QString::fromStdString(c.name);
        m_conductor = m_ledger->choice(tr("Conductor"), names, QStringLiteral("conductor"));
        connect(m_conductor, &QComboBox::activated, this, [this](int index) {
            const files::Conductor chosen = m_context.conductors[std::size_t(index)];
            document().editAntenna(tr("change conductor"), {}, [&](Antenna& a) {
                a.shape.wire.conductor = chosen.id;
                a.shape.wire.metal = chosen.metal;
            });
        });
        m_diameter = m_ledger->value(tr("Diameter, gauge or mm²"), units::Quantity::WireSize, QStringLiteral("wireDiameter"));
        m_diameter->setRange(2e-5, 0.5);
        connect(m_diameter, &ValueEdit::edited, this, [this](double value, const QString&, bool dragging) {
            document().editAntenna(tr("change wire size"), dragging ? QStringLiteral("wire") : QString(),
                                   [&](Antenna& a) { a.shape.wire.diameter = value; });
        });
        m_jacket = m_ledger->value(tr("Jacket, thickness"), units::Quantity::WireSize, QStringLiteral("wireJacket"));
        m_jacket->setRange(0.0, 0.05);
        connect(m_jacket, &ValueEdit::edited, this, [this](double value, const QString&, bool dragging) {
            document().editAntenna(tr("change jacket"), dragging ? QStringLiteral("jacket") : QString(),
                                   [&](Antenna& a) { a.shape.wire.jacket = value; });
        });
        m_frequency = m_ledger->value(tr("Design frequency"), units::Quantity::Frequency, QStringLiteral("designFrequency"));
        m_frequency->setRange(1.8e6, 29.9e6);
        connect(m_frequency, &ValueEdit::edited, this, [this](double value, const QString&, bool dragging) {
            document().editAntenna(tr("change design frequency"), dragging ? QStringLiteral("frequency") : QString(),
                                   [&](Antenna& a) { a.shape.designFrequency = value; });
        });
    }

    void refreshLengths(const Antenna& a)
    {
        const shapes::ParameterSpec* spec = family().spec(family().tunedParameter());
        const bool isLength = spec->quantity == units::Quantity::Length;
        const auto figure = [&](double v) { return QString::fromStdString(units::format(v, spec->quantity, system())); };
        const std::vector<shapes::RuleOfThumb> rules = family().rules(a.shape, a.shape.designFrequency);
        const Colours& c = m_context.theme.colours();
        const double now = family().value(a.shape, spec->key);
        m_lengthHeading->setText(tr("%1 %2 for %3")
                                     .arg(isLength ? tr("Length") : tr("Inductance"), QString::fromStdString(family().tunedName()),
                                          QString::fromStdString(units::formatFrequency(a.shape.designFrequency))));
        std::vector<CompareBars::Row> rows{{tr("Rule of thumb"), figure(rules.front().value), rules.front().value, c.leafMid}};
        const DetailPointer detail = solver().detail();
        if (detail && detail->solvedValue)
            rows.push_back({tr("Solved on this site"), figure(*detail->solvedValue), *detail->solvedValue, c.leaf});
        rows.push_back({tr("As drawn"), figure(now), now, c.sky});
        if (isLength) {
            const auto built = shapes::buildOver(a.shape, {});
            double cut = now;
            if (built && !built->sections.empty())
                cut = cutList(built->sections, a.allowances).front().cut;
            rows.push_back({tr("Cut, with folds and margin"), figure(cut), cut, c.petal});
        }
        m_bars->setRows(std::move(rows));
        m_goal->setCurrentIndex(a.tuneForLowestSwr ? 1 : 0);
        m_lengthNote->setText(lengthNote(rules.front().value));
        QStringList others;
        for (const shapes::RuleOfThumb& rule : rules)
            others << (rule.feetMegahertz > 0.0
                           ? tr("%1 ft·MHz (%2 m·MHz): %3, %4")
                                 .arg(rule.feetMegahertz)
                                 .arg(rule.metreMegahertz, 0, 'f', 1)
                                 .arg(figure(rule.value), QString::fromStdString(rule.assumption))
                           : tr("%1: %2, %3")
                                 .arg(QString::fromStdString(rule.name), figure(rule.value), QString::fromStdString(rule.assumption)));
        m_rulesNote->setText(tr("Constants handed down: ") + others.join(QStringLiteral("; ")) + QStringLiteral("."));
        m_tune->setText(tr("Tune to %1").arg(QString::fromStdString(units::formatFrequency(a.shape.designFrequency))));
        m_tune->setEnabled(detail && detail->solvedValue && std::abs(*detail->solvedValue / now - 1.0) > 2e-4);
    }

    QString lengthNote(double rule) const
    {
        const DetailPointer detail = solver().detail();
        if (!detail)
            return tr("Solving on your soil …");
        if (!detail->solvedValue)
            return QString::fromStdString(detail->solvedFault);
        const double percent = 100.0 * (*detail->solvedValue / rule - 1.0);
        return tr("%1 % %2 than the rule, which knows nothing of height, soil, jacket and bends.")
            .arg(std::abs(percent), 0, 'f', 1)
            .arg(percent < 0.0 ? tr("less") : tr("more"));
    }

    void refreshPower()
    {
        const double power = document().design().operation.power;
        const DetailPointer detail = solver().detail();
        const SpotResult* spot = detail ? detail->spot() : nullptr;
        m_powerHeading->setText(
            spot ? tr("Where %1 W goes, %2").arg(power).arg(QString::fromStdString(units::formatFrequency(spot->solution.frequency)))
                 : tr("Where the power goes"));
        const Colours& c = m_context.theme.colours();
        if (detail && detail->ledger)
            m_power->setShares({{tr("sky"), detail->ledger->sky, c.sky},
                                {tr("soil"), detail->ledger->soil, c.inkFaint},
                                {tr("wire"), detail->ledger->wire, c.brick},
                                {tr("coils"), detail->ledger->loads, c.petal},
                                {tr("transformer"), detail->ledger->transformer, c.leafMid}},
                               power);
        else
            m_power->setShares({}, power);
        if (spot) {
            const Complex z = spot->solution.impedance;
            const bool sure = spot->solution.impedanceErrorPercent <= em::usualErrorPercent;
            m_certainty->setText((sure
                                      ? tr("%1 at the %4, known to about %2 %; each share is computed on its own, together %3 %.")
                                      : tr("%1 at the %4, but only known to about %2 %; each share is computed on its own, together %3 %."))
                                     .arg(impedanceText(z.real(), z.imag()))
                                     .arg(std::max(0.1, spot->solution.impedanceErrorPercent), 0, 'f', 1)
                                     .arg(detail->ledger ? 100.0 * detail->ledger->sum() : 100.0, 0, 'f', 1)
                                     .arg(spot->solution.model->feeds[0].transformer ? tr("line, behind the transformer") : tr("feed")));
        } else
            m_certainty->setText({});
        m_caution->setText(cautionText());
    }

    /// RF burns, where they apply: the voltage at open ends and at an end-fed feedpoint.
    QString cautionText() const
    {
        const DetailPointer detail = solver().detail();
        const SpotResult* spot = detail ? detail->spot() : nullptr;
        if (!spot || !(spot->solution.inputPower > 0.0))
            return {};
        const double scale = std::sqrt(document().design().operation.power / spot->solution.inputPower);
        const Wire& wire = spot->solution.model->wires.front();
        double strongest = 0.0;
        for (int i = 0; i <= 40; ++i)
            strongest = std::max(strongest, std::abs(spot->solution.currentAt(0, wire.length() * i / 40)));
        const double volts = endVoltage(scale * strongest, wire.length(), wire.radius);
        QString words = tr("RF burns: about %1 kV at the wire's ends at full power. Keep them out of reach; nobody touches the wire while "
                           "transmitting.")
                            .arg(volts / 1000.0, 0, 'f', 1);
        if (solver().curve() && solver().curve()->built.highVoltageFeed)
            words += tr(" The feedpoint of this antenna carries high voltage too.");
        return words;
    }

    QString sentence() const
    {
        if (const QString fault = faultSentence(); !fault.isEmpty())
            return tr("This cannot be computed: %1.").arg(fault);
        const CurvePointer curve = solver().curve();
        if (!curve)
            return tr("Being computed over your soil …");
        QString words = curve->resonance
                            ? tr("Resonant at %1, %2 at the line")
                                  .arg(QString::fromStdString(units::formatFrequency(curve->resonance->frequency)),
                                       impedanceText(curve->resonance->resistance, 0.0))
                            : tr("Not resonant near %1")
                                  .arg(QString::fromStdString(units::formatFrequency(document().antenna().shape.designFrequency)));
        if (const int band = document().selectedBand(); band >= 0 && band < int(curve->bands.size())) {
            const Coverage& c = curve->bands[std::size_t(band)];
            words += c.shareUnderLimit > 0.0 ? tr(" · SWR under %1 from %2 to %3 MHz")
                                                   .arg(curve->limit)
                                                   .arg(c.underFrom / 1e6, 0, 'f', 3)
                                                   .arg(c.underTo / 1e6, 0, 'f', 3)
                                             : tr(" · SWR %1 at best on %2").arg(swrText(c.lowestSwr), QString::fromStdString(c.band.name));
        }
        for (const RangeNote& note : rangeNotes(curve->built.model, document().antenna().shape.designFrequency))
            words += tr(" · Out of range at the mark: %1.").arg(QString::fromStdString(note.message));
        return words;
    }

    void takeTuned()
    {
        const DetailPointer detail = solver().detail();
        if (!detail || !detail->solvedValue)
            return;
        const std::string key = family().tunedParameter();
        document().setParameter(key, *detail->solvedValue, {});
    }

    Scene* m_scene;
    std::string m_family;
    int m_antennaShown = -1;
    std::map<std::string, ValueEdit*> m_edits;
    std::map<std::string, QComboBox*> m_choices;
    ValueEdit *m_frequency = nullptr, *m_diameter = nullptr, *m_jacket = nullptr;
    QComboBox *m_conductor = nullptr, *m_goal = nullptr;
    QLabel *m_lengthHeading = nullptr, *m_lengthNote = nullptr, *m_rulesNote = nullptr, *m_powerHeading = nullptr, *m_certainty = nullptr,
           *m_caution = nullptr;
    CompareBars* m_bars = nullptr;
    ShareBar* m_power = nullptr;
    QPushButton* m_tune = nullptr;
};

} // namespace

std::unique_ptr<Stage> makeShapeStage(StageContext& context, QObject* parent) { return std::make_unique<ShapeStage>(context, parent); }

} // namespace vetchling::app

#include "shape_stage.moc"
