#include "app/stages/build/cut_panel.h"

#include "app/document/document.h"
#include "app/view/words.h"
#include "app/widgets/value_edit.h"

#include <algorithm>
#include <cmath>

namespace vetchling::app {
namespace {

using shapes::WireEnd;
using units::Quantity;

constexpr double equal = 0.01; // m that a piece may be off

bool hasEnd(const BuildDesk& desk, WireEnd end)
{
    const auto built = desk.built();
    return built && std::any_of(built->sections.begin(), built->sections.end(), [&](const auto& s) {
               return s.first == end || s.last == end || (end == WireEnd::Centre && s.first == WireEnd::Transformer);
           });
}

} // namespace

CutPanel::CutPanel(ViewContext& context, BuildDesk& desk, CutBoard& board, Ledger& ledger, QObject* parent)
    : QObject(parent), m_context(context), m_desk(desk), m_board(board)
{
    ledger.heading(tr("Allowances"));
    allowance(ledger, tr("Round the centre piece"), "allowCentre", Quantity::SmallLength, &Allowances::centre, 2.0, WireEnd::Centre);
    allowance(ledger, tr("Round a link's insulator"), "allowLink", Quantity::SmallLength, &Allowances::linkTail, 2.0, WireEnd::Link);
    allowance(ledger, tr("Pigtail, of the path"), "allowPigtail", Quantity::SmallLength, &Allowances::pigtail, 1.0, WireEnd::Link);
    allowance(ledger, tr("Fold-back at an end"), "allowFold", Quantity::SmallLength, &Allowances::fold, 5.0, WireEnd::Insulator);
    allowance(ledger, tr("Into a coil"), "allowCoil", Quantity::SmallLength, &Allowances::coilTail, 2.0, WireEnd::Coil);
    allowance(ledger, tr("Soldered joint"), "allowJoint", Quantity::SmallLength, &Allowances::jointTail, 2.0, WireEnd::Joint);
    allowance(ledger, tr("Inside the mount"), "allowMount", Quantity::SmallLength, &Allowances::mount, 2.0, WireEnd::Tube);
    allowance(ledger, tr("Cut long by"), "allowMargin", Quantity::Percent, &Allowances::marginPercent, 30.0, WireEnd::Insulator);
    m_sure = ledger.button({}, QStringLiteral("marginFromSpread"));
    connect(m_sure, &QPushButton::clicked, this, [this] {
        if (const double margin = marginFromSpread(); margin > 0.0)
            m_desk.setAllowance(&Allowances::marginPercent, margin);
    });
    addPiece(ledger);
    addSpool(ledger);
    m_cautions = ledger.caution({});
    m_cautions->setObjectName(QStringLiteral("cutCautions"));
    addPaper(ledger);
}

void CutPanel::allowance(Ledger& ledger, const QString& label, const char* object, Quantity quantity, double Allowances::*member,
                         double highest, WireEnd end)
{
    ValueEdit* edit = ledger.value(label, quantity, QLatin1String(object));
    edit->setRange(0.0, highest);
    connect(edit, &ValueEdit::edited, this, [this, member, object](double value, const QString&, bool dragging) {
        m_desk.setAllowance(member, value, dragging ? QLatin1String(object) : QString());
    });
    m_fields.push_back({member, edit});
    ledger.setRowVisible(edit, member == &Allowances::marginPercent || hasEnd(m_desk, end));
}

void CutPanel::addPiece(Ledger& ledger)
{
    ledger.line();
    m_piece = ledger.note();
    m_measured = ledger.value(tr("Measured"), Quantity::Length, QStringLiteral("pieceMeasured"));
    m_measured->setRange(0.0, 2000.0);
    m_measured->clearValue(m_context.system());
    connect(m_measured, &ValueEdit::edited, this, [this](double value, const QString&, bool) {
        PieceState state = m_desk.piece(m_board.chosen());
        state.measured = value > 0.0 ? std::optional(value) : std::nullopt;
        m_desk.setPiece(m_board.chosen(), state);
    });
    m_tick = ledger.button({}, QStringLiteral("pieceDone"));
    connect(m_tick, &QPushButton::clicked, &m_board, &CutBoard::tickChosen);
    m_off = ledger.note();
}

void CutPanel::addSpool(Ledger& ledger)
{
    ledger.line();
    m_total = ledger.figure(tr("Wire to cut"));
    m_spool = ledger.value(tr("On the spool"), Quantity::Length, QStringLiteral("spool"));
    m_spool->setRange(0.0, 1e5);
    m_spool->clearValue(m_context.system());
    m_spool->setHelp(tr("0: bought as needed"));
    connect(m_spool, &ValueEdit::edited, this, [this](double value, const QString&, bool dragging) {
        m_desk.edit(tr("change the spool"), dragging ? QStringLiteral("spool") : QString(),
                    [&](Workshop& w) { w.spool = value > 0.0 ? std::optional(value) : std::nullopt; });
    });
    m_left = ledger.note();
    m_offset = ledger.value(tr("Tape at the peg shows"), Quantity::SmallLength, QStringLiteral("tapeOffset"));
    m_offset->setRange(-1.0, 10.0);
    m_offset->setHelp(tr("where the tape's zero is not at the peg: a worn hook, a loop"));
    connect(m_offset, &ValueEdit::edited, this, [this](double value, const QString&, bool dragging) {
        m_desk.edit(tr("change the tape's start"), dragging ? QStringLiteral("tape") : QString(),
                    [&](Workshop& w) { w.tapeOffset = value; });
    });
}

void CutPanel::addPaper(Ledger& ledger)
{
    ledger.line();
    connect(ledger.button(tr("Print build sheet"), QStringLiteral("printSheet"), true), &QPushButton::clicked, this, &CutPanel::printAsked);
    const auto files = ledger.buttons(
        {{tr("PDF"), QStringLiteral("savePdf")}, {tr("Phone"), QStringLiteral("savePhone")}, {tr("CSV"), QStringLiteral("saveCsv")}});
    connect(files[0], &QPushButton::clicked, this, &CutPanel::pdfAsked);
    connect(files[1], &QPushButton::clicked, this, &CutPanel::phoneAsked);
    connect(files[2], &QPushButton::clicked, this, &CutPanel::csvAsked);
    connect(ledger.button(tr("Drilling templates 1 : 1"), QStringLiteral("saveTemplates")), &QPushButton::clicked, this,
            &CutPanel::templatesAsked);
    const auto recipe =
        ledger.buttons({{tr("Keep as recipe"), QStringLiteral("saveRecipe")}, {tr("Build from one"), QStringLiteral("takeRecipe")}});
    recipe[0]->setToolTip(tr("Path, wire, jacket, height, soil and how the dip answers: what it takes to build it once more"));
    recipe[1]->setToolTip(tr("A finished antenna's recipe for this wire and site, its lengths corrected by the model"));
    connect(recipe[0], &QPushButton::clicked, this, &CutPanel::recipeAsked);
    connect(recipe[1], &QPushButton::clicked, this, &CutPanel::recipeTaken);
    m_said = ledger.note();
}

void CutPanel::say(const QString& words) { m_said->setText(words); }

double CutPanel::marginFromSpread() const
{
    const auto spread = m_context.variants.freshSpread();
    const study::BandSpread* band =
        spread ? spread->band(bandFor(m_context.document.design(), m_context.document.antenna().shape.designFrequency)) : nullptr;
    return band ? std::ceil(10.0 * study::cutMargin(*band)) / 10.0 : 0.0;
}

void CutPanel::refreshPiece()
{
    const BuildFacts* facts = m_desk.facts();
    const std::string key = m_board.chosen();
    const CutRow* row = nullptr;
    QString name;
    if (facts)
        for (const BuildPiece& piece : facts->pieces) {
            const auto keys = pieceKeys(piece.row);
            if (const auto here = std::find(keys.begin(), keys.end(), key); here != keys.end()) {
                row = &piece.row;
                name = pieceWords(piece.row, int(here - keys.begin()) + 1);
            }
        }
    m_piece->setText(row ? tr("Chosen piece: %1, cut to %2").arg(name, lengthWords(row->cut, m_context.system())) : tr("No piece."));
    m_measured->setEnabled(row != nullptr);
    m_tick->setEnabled(row != nullptr);
    const PieceState state = m_desk.piece(row ? key : std::string());
    m_tick->setText(state.done ? tr("Not done after all") : tr("Done"));
    if (state.measured)
        m_measured->setValue(*state.measured, m_context.system());
    else
        m_measured->clearValueUnlessTyping(m_context.system());
    const double off = row ? state.measured.value_or(row->cut) - row->cut : 0.0;
    m_off->setText(std::abs(off) <= equal ? QString()
                   : off > 0.0            ? tr("%1 longer than wanted: more to trim.").arg(smallWords(off, m_context.system()))
                               : tr("%1 short: fold less at its end, or cut its partner alike.").arg(smallWords(-off, m_context.system())));
}

void CutPanel::refresh()
{
    if (!m_context.document.hasAntenna())
        return;
    const auto system = m_context.system();
    const Antenna& a = m_context.document.antenna();
    for (const Field& field : m_fields)
        field.edit->setValue(a.allowances.*field.member, system);
    const BuildFacts* known = m_desk.facts();
    m_cautions->setText(known && !known->bench.empty() ? coreWords(known->bench.front().words, system) : QString()); // that of cutting
    const double margin = marginFromSpread();
    m_sure->setVisible(margin > 0.0);
    m_sure->setText(tr("What is unsure wants %1 %").arg(margin, 0, 'f', 1));
    m_sure->setToolTip(tr("So much longer, 95 of 100 antennas have to be shortened and not lengthened: take this margin"));
    refreshPiece();
    const BuildFacts* facts = m_desk.facts();
    m_total->setText(facts ? lengthWords(facts->wire, system) : QStringLiteral("–"));
    if (a.workshop.spool)
        m_spool->setValue(*a.workshop.spool, system);
    else
        m_spool->clearValueUnlessTyping(system);
    m_offset->setValue(a.workshop.tapeOffset, system);
    QString left;
    if (facts && facts->spool)
        left = facts->spool->without.empty()
                   ? tr("%1 are left after this, no joint needed.").arg(lengthWords(facts->spool->left, system, 1))
                   : tr("%1 too little: %2 would need a joint or another spool.")
                         .arg(lengthWords(-facts->spool->left, system, 1), coreWords(facts->spool->without.front()));
    m_left->setText(left);
}

} // namespace vetchling::app
