#include "app/stages/feed/part_panel.h"

#include "app/view/feed_words.h"
#include "app/view/words.h"
#include "app/widgets/value_edit.h"

#include <QRegularExpression>

#include <algorithm>
#include <cmath>

namespace vetchling::app {
namespace {

const ChainPart* partIn(const Document& document, const Id& id)
{
    for (const ChainPart& p : chainParts(document.antenna()))
        if (p.id == id)
            return &p;
    return nullptr;
}

/// "3.5: 0.8; 7: 0.4", MHz and dB, in the user's own decimals.
QString tableText(const std::vector<std::pair<double, double>>& table)
{
    QStringList rows;
    for (const auto& [frequency, loss] : table)
        rows << QStringLiteral("%1: %2").arg(frequency / 1e6, 0, 'g', 6).arg(loss, 0, 'g', 4);
    return rows.join(QStringLiteral("; "));
}

/// Nothing where it is not understood.
std::optional<std::vector<std::pair<double, double>>> tableOf(const QString& text)
{
    std::vector<std::pair<double, double>> table;
    for (const QString& row : text.split(QLatin1Char(';'), Qt::SkipEmptyParts)) {
        const QStringList pair = row.simplified().split(QRegularExpression(QStringLiteral("\\s*[: ]\\s*")), Qt::SkipEmptyParts);
        if (pair.size() != 2)
            return std::nullopt;
        const auto frequency = units::parse(pair[0].toStdString(), units::Quantity::Frequency),
                   loss = units::parse(pair[1].toStdString(), units::Quantity::Decibel);
        if (!frequency || !loss)
            return std::nullopt;
        table.emplace_back(*frequency, *loss);
    }
    ChainPart probe;
    probe.lossTable = table;
    return findPartFaults(probe).empty() ? std::optional(table) : std::nullopt;
}

QString elementWords(const Reactance& r)
{
    return valueWords(r.value, r.inductor ? units::Quantity::Inductance : units::Quantity::Capacitance, units::System::Metric);
}

} // namespace

std::string PartPanel::layout(const Document& document, const FeedDesk& desk, const Id& part)
{
    const ChainPart* shown = partIn(document, part);
    return part + "|" + (shown ? shown->kind : desk.report() ? "own" : "none");
}

PartPanel::PartPanel(ViewContext& context, FeedDesk& desk, Ledger& ledger, const Id& part, QObject* parent)
    : QObject(parent), m_context(context), m_desk(desk), m_ledger(ledger), m_part(part)
{
    if (const ChainPart* p = shown())
        addPart(*p);
    else if (!part.empty())
        addOwn();
    else {
        ledger.heading(tr("Part"));
        ledger.note(tr("Choose a part in the drawing to see and change it; drag it along the chain, or remove it with Delete."));
    }
}

const ChainPart* PartPanel::shown() const { return m_context.document.hasAntenna() ? partIn(m_context.document, m_part) : nullptr; }

/// The shape's own feed: the same fields as on the Shape page.
void PartPanel::addOwn()
{
    Document& document = m_context.document;
    m_ledger.heading(tr("The antenna's own feed"));
    for (const shapes::ParameterSpec& spec : document.family().specs(document.antenna().shape)) {
        if (spec.group != shapes::feedGroup)
            continue;
        if (!spec.choices.empty()) {
            QStringList words;
            for (const std::string& w : spec.choices)
                words << coreWords(w);
            QComboBox* box = m_ledger.choice(coreWords(spec.label), words, QStringLiteral("own ") + QString::fromStdString(spec.key));
            box->setToolTip(coreWords(spec.help));
            connect(box, &QComboBox::activated, this, [&document, key = spec.key](int index) { document.setParameter(key, index, {}); });
            m_ownBoxes[spec.key] = box;
            continue;
        }
        ValueEdit* edit = m_ledger.value(coreWords(spec.label), spec.quantity, QStringLiteral("own ") + QString::fromStdString(spec.key));
        edit->setRange(spec.lowest, spec.highest);
        edit->setHelp(coreWords(spec.help));
        connect(edit, &ValueEdit::edited, this, [&document, key = spec.key](double value, const QString& typed, bool dragging) {
            document.setParameter(key, value, typed, dragging);
        });
        m_own[spec.key] = edit;
    }
    m_ledger.note(tr("These belong to the shape: Shape shows them too."));
}

void PartPanel::addPart(const ChainPart& part)
{
    QString title = feed::partName(part);
    title[0] = title[0].toUpper();
    m_ledger.heading(title);
    if (part.kind == part::line)
        addTypes();
    for (const PartSpec& spec : kindOf(part).specs())
        addSpec(spec);
    if (kindOf(part).spec("loss_dB") && part.kind != part::attenuator)
        addLossTable();
    if (part.kind == part::line)
        m_alone = m_ledger.figure(tr("Alone, matched, on this band"));
    if (part.kind == part::tuner)
        m_tuning = m_ledger.note();
    m_basis = m_ledger.choice(tr("Its figures are"), {tr("assumed"), tr("computed"), tr("measured")}, QStringLiteral("partBasis"));
    connect(m_basis, &QComboBox::activated, this, [this](int index) { m_desk.setBasis(m_part, Basis(index)); });
    if (part.kind == part::section || part.kind == part::stub || part.kind == part::network) {
        auto* size = m_ledger.button(tr("Size it for this band"), QStringLiteral("sizePart"), true);
        m_sizeFault = m_ledger.caution({});
        m_sizeFault->hide();
        connect(size, &QPushButton::clicked, this, [this] {
            const Faults faults = m_desk.size(m_part);
            m_sizeFault->setText(faults.empty() ? QString() : coreWords(faults.front().message, m_context.system()));
            m_sizeFault->setVisible(!faults.empty());
        });
    }
    auto* remove = m_ledger.button(tr("Remove this part"), QStringLiteral("removePart"));
    connect(remove, &QPushButton::clicked, this, [this] { m_desk.removePart(m_part); });
}

void PartPanel::addSpec(const PartSpec& spec)
{
    const QString label = coreWords(spec.label), object = QStringLiteral("part ") + QString::fromStdString(spec.key);
    if (!spec.choices.empty()) {
        QStringList words;
        for (const std::string& w : spec.choices)
            words << coreWords(w);
        QComboBox* box = m_ledger.choice(label, words, object);
        box->setToolTip(coreWords(spec.help));
        connect(box, &QComboBox::activated, this, [this, key = spec.key](int index) { m_desk.setValue(m_part, key, index); });
        m_boxes[spec.key] = box;
        return;
    }
    ValueEdit* edit = m_ledger.value(label, spec.quantity, object);
    edit->setRange(spec.lowest, spec.highest);
    edit->setHelp(coreWords(spec.help));
    connect(edit, &ValueEdit::edited, this,
            [this, key = spec.key](double value, const QString&, bool dragging) { m_desk.setValue(m_part, key, value, dragging); });
    m_edits[spec.key] = edit;
}

void PartPanel::addLossTable()
{
    m_ledger.note(tr("Loss by frequency, MHz: dB; …"));
    m_table = new QLineEdit;
    m_table->setObjectName(QStringLiteral("partLossTable"));
    m_table->setAlignment(Qt::AlignLeft);
    m_table->setPlaceholderText(tr("the same everywhere"));
    m_table->setAccessibleName(tr("Loss by frequency"));
    m_ledger.add(m_table);
    m_tableFault = m_ledger.caution({});
    m_tableFault->hide();
    connect(m_table, &QLineEdit::editingFinished, this, [this] {
        const auto table = tableOf(m_table->text());
        m_tableFault->setText(tr("Write rising frequencies with their losses, such as 3.5: 0.8; 7: 0.4"));
        m_tableFault->setVisible(!table);
        if (table && m_table->isModified())
            m_desk.setLossTable(m_part, *table);
        if (table)
            m_table->setModified(false);
    });
}

void PartPanel::addTypes()
{
    QStringList names{tr("of its own")};
    for (const LineType& type : m_context.lineTypes)
        names << QString::fromStdString(type.name);
    m_type = m_ledger.choice(tr("Type"), names, QStringLiteral("partType"));
    connect(m_type, &QComboBox::activated, this,
            [this](int index) { m_desk.setType(m_part, index > 0 ? m_context.lineTypes[std::size_t(index - 1)].id : std::string()); });
    m_source = m_ledger.note();
}

void PartPanel::refresh()
{
    const Document& document = m_context.document;
    if (!document.hasAntenna())
        return;
    for (const auto& [key, edit] : m_own) {
        const auto typed = document.antenna().typed.find(key);
        edit->setValue(document.family().value(document.antenna().shape, key), m_context.system(),
                       typed == document.antenna().typed.end() ? QString() : QString::fromStdString(typed->second));
    }
    for (const auto& [key, box] : m_ownBoxes)
        box->setCurrentIndex(int(std::lround(document.family().value(document.antenna().shape, key))));
    const ChainPart* part = shown();
    if (!part)
        return;
    for (const auto& [key, edit] : m_edits)
        edit->setValue(partValue(*part, key), m_context.system());
    for (const auto& [key, box] : m_boxes)
        box->setCurrentIndex(int(std::lround(partValue(*part, key))));
    if (m_basis)
        m_basis->setCurrentIndex(int(part->basis));
    if (m_table && !m_table->hasFocus())
        m_table->setText(tableText(part->lossTable));
    if (m_type) {
        const auto type =
            std::find_if(m_context.lineTypes.begin(), m_context.lineTypes.end(), [&](const LineType& t) { return t.id == part->type; });
        m_type->setCurrentIndex(type == m_context.lineTypes.end() ? 0 : int(type - m_context.lineTypes.begin()) + 1);
        m_source->setText(type == m_context.lineTypes.end() ? tr("Your own figures.")
                                                            : tr("Source: %1.").arg(QString::fromStdString(type->source)));
    }
    const auto report = m_desk.report();
    if (const auto alone = m_desk.matchedLoss(m_part); m_alone && alone)
        m_alone->setText(feed::decibelWords(*alone));
    if (m_tuning && report) {
        const study::FeedRow* row = report->row(document.selectedBand());
        const auto place = std::find_if(report->parts.begin(), report->parts.end(), [&](const ChainPart& p) { return p.id == m_part; });
        QString words;
        if (row && place != report->parts.end()) {
            const Joint& joint = row->state.joints[std::size_t(place - report->parts.begin())];
            if (joint.refused)
                words = tr("On %1: %2.").arg(QString::fromStdString(row->band.name), coreWords(*joint.refused, m_context.system()));
            else if (const std::size_t at = std::size_t(place - report->parts.begin());
                     swr(at == 0 ? row->state.load : row->state.joints[at - 1].impedance, partValue(*part, "to_ohm")) < 1.02)
                words = tr("On %1: nothing to tune.").arg(QString::fromStdString(row->band.name));
            else if (!joint.solutions.empty()) {
                const NetworkSolution& s = joint.solutions.front();
                words = (s.shuntAtLoad ? tr("On %1: %2 across the antenna's side, %3 in the path.")
                                       : tr("On %1: %2 across the radio's side, %3 in the path."))
                            .arg(QString::fromStdString(row->band.name), elementWords(s.shunt), elementWords(s.series));
            }
        }
        m_tuning->setText(words);
    }
}

} // namespace vetchling::app
