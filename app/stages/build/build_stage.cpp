/// Build: what to cut and to wind, what to buy, what it has to stand and what to keep away from; on the bench and as a sheet to print.
#include "app/document/aside.h"
#include "app/stages/build/choke_board.h"
#include "app/stages/build/coil_board.h"
#include "app/stages/build/cut_panel.h"
#include "app/stages/build/parts_board.h"
#include "app/stages/build/safety_board.h"
#include "app/stages/build/sheet_pages.h"
#include "app/stages/stage.h"
#include "app/stages/view_buttons.h"
#include "app/view/ask_for_file.h"
#include "app/view/sketch.h"
#include "app/view/words.h"
#include "app/widgets/typed.h"
#include "core/files/recipe_file.h"
#include "core/files/writer.h"
#include "core/trim/next_step.h"

#include <QDate>
#include <QFileDialog>
#include <QPrintDialog>
#include <QPrinter>
#include <QScrollArea>

#include <cmath>
#include <utility>

namespace vetchling::app {
namespace {

class BuildStage final : public Stage {
    Q_OBJECT
public:
    BuildStage(ViewContext& context, QObject* parent)
        : Stage(context, parent), m_desk(context.document, context.models, context.shed, context.solver, context.dataFolder, this),
          m_coils(context.document, context.solver), m_cut(new CutBoard(context, m_desk)), m_coil(new CoilBoard(context, m_coils)),
          m_choke(new ChokeBoard(context, m_desk)), m_parts(new PartsBoard(context, m_desk)), m_safety(new SafetyBoard(context, m_desk))
    {
        context.add(m_desk.waitings());
        context.add(m_coils.waitings());
        m_views = new ViewButtons(*m_page, QStringLiteral("buildViews"), this);
        m_views->add(tr("Cut"), QStringLiteral("buildCut"), scrolled(m_cut));
        m_views->add(tr("Coil"), QStringLiteral("buildCoil"), m_coil);
        m_views->add(tr("Choke"), QStringLiteral("buildChoke"), m_choke);
        m_views->add(tr("Parts"), QStringLiteral("buildParts"), scrolled(m_parts));
        m_views->add(tr("Safety"), QStringLiteral("buildSafety"), scrolled(m_safety));
        connect(m_views, &ViewButtons::chosen, this, &BuildStage::refresh);
        connect(&m_coils, &CoilDesk::ready, this, &BuildStage::refresh);
        connect(&m_desk, &BuildDesk::safetyReady, this, &BuildStage::refresh);
        connect(&m_desk, &BuildDesk::recipeReady, this, &BuildStage::sayCopied);
        connect(&m_context.left, &LeftDesk::changed, this, &BuildStage::goOn);
        connect(m_cut, &CutBoard::pieceChosen, this, &BuildStage::refresh);
        connect(m_parts, &PartsBoard::partChosen, this, &BuildStage::refresh);
        connect(&m_context.variants, &VariantsDesk::spreadReady, this, [this] {
            if (m_cutPanel)
                m_cutPanel->refresh();
        });
        rebuildLedgerWhenOther();
    }

    QString id() const override { return QStringLiteral("build"); }
    QString name() const override { return tr("Build"); }
    Canvas* canvas() override { return shown(); }

    void showView(const QString& view) override { m_views->showNamed(QStringLiteral("build") + view); }

    QString summary() const override
    {
        const BuildFacts* facts = m_desk.facts();
        if (!facts)
            return tr("nothing to cut");
        // the trail has no room for inches, nor for tenths of many metres
        constexpr double much = 100.0, foot = 0.3048; // m
        const bool feet = system() != units::System::Metric;
        const QString wire =
            lengthWords(feet ? foot * std::round(facts->wire / foot) : facts->wire, system(), feet || facts->wire >= much ? 0 : 1);
        constexpr double none = 0.05; // m
        return facts->wire < none ? tr("%1 parts, no wire").arg(countOf(facts->parts))
                                  : tr("%1 of wire, %2 parts").arg(wire).arg(countOf(facts->parts));
    }

    QString tableText() const override
    {
        QString table;
        for (const QStringList& line : cells())
            table += line.join(QLatin1Char('\t')) + QLatin1Char('\n');
        return table;
    }

    void refresh() override
    {
        rebuildLedgerWhenOther();
        if (!document().hasAntenna()) {
            m_page->setTitle(tr("Build"));
            m_page->setSentence(tr("Add an antenna with + at the top; then this says what to cut."));
        } else {
            wantAnswers();
            m_page->setTitle(title());
            m_page->setSentence(!m_desk.faults().empty() ? QString::fromStdString(m_desk.faults().front().text()) : sentence());
        }
        if (m_cutPanel)
            m_cutPanel->refresh();
        if (m_coilPanel)
            m_coilPanel->refresh();
        if (m_chokePanel)
            m_chokePanel->refresh();
        if (m_partsPanel)
            m_partsPanel->refresh();
        if (m_safetyPanel)
            m_safetyPanel->refresh();
        m_cut->fit();
        m_parts->fit();
        shown()->update();
        goOn();
    }

private:
    struct Then {
        Id antenna;
        std::function<void()> act;
    };

    static QScrollArea* scrolled(QWidget* view)
    {
        auto* scroll = new QScrollArea;
        scroll->setWidgetResizable(true);
        scroll->setWidget(view);
        return scroll;
    }

    [[nodiscard]] Canvas* shown() const
    {
        QWidget* view = m_views->current();
        if (auto* scroll = qobject_cast<QScrollArea*>(view))
            view = scroll->widget();
        return static_cast<Canvas*>(view);
    }

    /// What takes its time is asked for only where somebody looks: by the view that shows it.
    void wantAnswers()
    {
        if (shown() == m_coil)
            m_coils.want();
        if (shown() == m_safety)
            m_desk.wantSafety();
    }

    [[nodiscard]] QString title() const
    {
        const QString name = document().shownName();
        return shown() == m_coil     ? tr("Build: the coils of %1").arg(name)
               : shown() == m_choke  ? tr("Build: the choke of %1").arg(name)
               : shown() == m_parts  ? tr("Build: the parts of %1").arg(name)
               : shown() == m_safety ? tr("Build: safety of %1").arg(name)
                                     : tr("Build: %1").arg(name);
    }
    [[nodiscard]] QString sentence() const
    {
        return shown() == m_coil     ? m_coil->sentence()
               : shown() == m_choke  ? m_choke->sentence()
               : shown() == m_parts  ? m_parts->sentence()
               : shown() == m_safety ? m_safety->sentence()
                                     : m_cut->sentence();
    }
    [[nodiscard]] std::vector<QStringList> cells() const
    {
        return shown() == m_coil     ? m_coil->cells()
               : shown() == m_choke  ? m_choke->cells()
               : shown() == m_parts  ? m_parts->cells()
               : shown() == m_safety ? m_safety->cells()
                                     : m_cut->cells();
    }

    /// Rows that follow from what the antenna is made of are made anew when that is another.
    [[nodiscard]] QString layout() const
    {
        if (!document().hasAntenna())
            return QStringLiteral("none");
        QString key = shown()->objectName();
        if (shown() == m_coil)
            for (const std::string& coil : m_coils.coils())
                key += QString::fromStdString("|" + document().current() + coil);
        if (const auto built = m_desk.built(); shown() == m_cut && built)
            for (const shapes::WireSection& s : built->sections)
                key += QStringLiteral("|%1,%2").arg(int(s.first)).arg(int(s.last));
        return key;
    }

    void rebuildLedgerWhenOther()
    {
        const QString key = layout();
        if (key == m_layout)
            return;
        m_layout = key;
        m_ledger->clear();
        for (QObject* panel : std::initializer_list<QObject*>{m_cutPanel, m_coilPanel, m_chokePanel, m_partsPanel, m_safetyPanel})
            delete panel;
        m_cutPanel = nullptr, m_coilPanel = nullptr, m_chokePanel = nullptr, m_partsPanel = nullptr, m_safetyPanel = nullptr;
        if (!document().hasAntenna())
            m_ledger->note(tr("Add an antenna with + at the top."));
        else if (shown() == m_coil && m_coils.coils().empty())
            m_ledger->note(tr("This antenna has no coil to be wound."));
        else if (shown() == m_coil)
            m_coilPanel = new CoilPanel(m_context, m_coils, *m_ledger, this);
        else if (shown() == m_choke)
            m_chokePanel = new ChokePanel(m_context, m_desk, *m_ledger, this);
        else if (shown() == m_parts)
            m_partsPanel = new PartsPanel(m_context, m_desk, *m_parts, *m_ledger, this);
        else if (shown() == m_safety)
            m_safetyPanel = new SafetyPanel(m_context, m_desk, *m_ledger, this);
        else
            addCutPanel();
        m_ledger->finish();
    }

    void addCutPanel()
    {
        m_cutPanel = new CutPanel(m_context, m_desk, *m_cut, *m_ledger, this);
        connect(m_cutPanel, &CutPanel::printAsked, this, &BuildStage::print);
        connect(m_cutPanel, &CutPanel::pdfAsked, this,
                [this] { saveSheet(tr("Save the build sheet"), system() == units::System::Metric ? SheetPaper::A4 : SheetPaper::Letter); });
        connect(m_cutPanel, &CutPanel::phoneAsked, this, [this] { saveSheet(tr("Save the sheet for a phone"), SheetPaper::Phone); });
        connect(m_cutPanel, &CutPanel::templatesAsked, this, [this] {
            save(tr("Save the drilling templates"), tr("PDF (*.pdf);;SVG (*.svg)"),
                 [this](const QString& path) { return aside([pages = pages(), path] { return pages.writeTemplates(path); }); });
        });
        connect(m_cutPanel, &CutPanel::csvAsked, this, [this] {
            save(tr("Save the cut list"), tr("CSV (*.csv)"), [this](const QString& path) {
                return aside([path, csv = cutListCsv(m_context.models.current()->cut) + "\n" + tapeCsv(*m_desk.facts())] {
                    return files::writeWhole(path.toStdString(), csv);
                });
            });
        });
        connect(m_cutPanel, &CutPanel::recipeAsked, this, [this] {
            save(tr("Keep the recipe"), tr("Recipe (*.json)"), [this](const QString& path) {
                return aside([path, recipe = recipe()] { return files::saveRecipe(recipe, path.toStdString()); });
            });
        });
        connect(m_cutPanel, &CutPanel::recipeTaken, this, &BuildStage::takeRecipe);
    }

    [[nodiscard]] std::map<std::string, double> slopes() const
    {
        std::map<std::string, double> out;
        if (const DetailPointer detail = m_context.solver.detail())
            for (const study::LeverSlope& s : detail->levers)
                out[s.lever.parameter] = s.perUnit;
        return out;
    }

    [[nodiscard]] study::Recipe recipe() const
    {
        return study::recipeOf(document().design(), document().antenna(), asLogged(document().antenna()), slopes(),
                               QDate::currentDate().toString(Qt::ISODate).toStdString());
    }

    [[nodiscard]] SheetPages pages() const { return SheetPages(sheetFactsOf(m_context, m_desk, m_coils)); }

    /// Takes what is typed first.
    bool ready()
    {
        const QString complaint = takeTyped(m_page->window());
        const bool nothing = !m_desk.facts() || m_desk.facts()->pieces.empty();
        m_cutPanel->say(!complaint.isEmpty() ? complaint : nothing ? tr("There is nothing to cut yet.") : QString());
        return complaint.isEmpty() && !nothing;
    }

    [[nodiscard]] QString askForName(const QString& title, const QString& filter)
    {
        return ready() ? askForFile(m_page, title, fileName(QString::fromStdString(document().antenna().name)), filter) : QString();
    }

    void save(const QString& title, const QString& filter, const std::function<Faults(const QString&)>& write)
    {
        if (const QString path = askForName(title, filter); !path.isEmpty())
            sayWritten(path, write(path));
    }

    void saveSheet(const QString& title, SheetPaper paper)
    {
        if (const QString path = askForName(title, tr("PDF (*.pdf)")); !path.isEmpty())
            whenWorkedOut(
                [this, path, paper] { sayWritten(path, aside([pages = pages(), path, paper] { return pages.write(path, paper); })); });
    }

    void print()
    {
        if (!ready())
            return;
        const auto printer = std::make_shared<QPrinter>();
        QPrintDialog dialog(printer.get(), m_page);
        if (dialog.exec() == QDialog::Accepted)
            whenWorkedOut([this, printer] {
                say(aside([pages = pages(), printer] { return pages.paint(*printer, false); }) > 0
                        ? tr("Handed to the printer.")
                        : tr("The printer cannot be painted on."));
            });
    }

    /// Distances and coil belong on the sheet: it is made when they are there, or when the person has left them.
    void whenWorkedOut(std::function<void()> act)
    {
        m_then = {document().current(), std::move(act)};
        goOn();
    }

    void goOn()
    {
        if (!m_then.act)
            return;
        if (!document().hasAntenna() || m_then.antenna != document().current()) {
            m_then = {};
            return say(tr("The sheet was left: another antenna is on show."));
        }
        m_desk.wantSafety();
        m_coils.want();
        m_context.left.want();
        if (m_desk.safetyBusy() || m_coils.busy() || m_context.left.busy())
            return say(tr("Distances and coil are being worked out; then the sheet follows."));
        std::exchange(m_then, {}).act();
    }

    void sayWritten(const QString& path, const Faults& faults)
    {
        say(faults.empty() ? tr("Written to %1.").arg(path) : tr("Not written: %1").arg(coreWords(faults.front().message, system())));
    }

    /// On the cut view; on the others by their sentence, until they change.
    void say(const QString& words)
    {
        if (m_cutPanel)
            m_cutPanel->say(words);
        else
            m_page->setSentence(words);
    }

    void takeRecipe()
    {
        const QString path = QFileDialog::getOpenFileName(m_page, tr("Build from a recipe"), {}, tr("Recipe (*.json)"));
        if (path.isEmpty())
            return;
        const auto recipe = aside([name = path.toStdString()] { return files::readRecipe(name); });
        if (!recipe) {
            say(tr("Not taken: %1").arg(QString::fromStdString(recipe.firstFault())));
            return;
        }
        say(tr("Being worked out for this wire and soil …"));
        m_desk.copyRecipe(*recipe);
    }

    void sayCopied(const QString& words)
    {
        refresh();
        say(words);
    }

    BuildDesk m_desk;
    CoilDesk m_coils;
    Then m_then; ///< waits for what the desks work out
    CutBoard* m_cut;
    CoilBoard* m_coil;
    ChokeBoard* m_choke;
    PartsBoard* m_parts;
    SafetyBoard* m_safety;
    ViewButtons* m_views = nullptr;
    CutPanel* m_cutPanel = nullptr;
    CoilPanel* m_coilPanel = nullptr;
    ChokePanel* m_chokePanel = nullptr;
    PartsPanel* m_partsPanel = nullptr;
    SafetyPanel* m_safetyPanel = nullptr;
    QString m_layout;
};

} // namespace

std::unique_ptr<Stage> makeBuildStage(ViewContext& context, QObject* parent) { return std::make_unique<BuildStage>(context, parent); }

} // namespace vetchling::app

#include "build_stage.moc"
