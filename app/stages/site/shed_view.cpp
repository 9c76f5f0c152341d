#include "app/stages/site/shed_view.h"

#include "app/view/words.h"
#include "app/widgets/name_edit.h"
#include "app/widgets/value_edit.h"

#include <QFileDialog>
#include <QHeaderView>

#include <algorithm>
#include <cmath>

namespace vetchling::app {
namespace {

QLabel* headingLabel(const QString& words)
{
    auto* label = new QLabel(words);
    label->setProperty("role", "heading");
    return label;
}

} // namespace

ShedView::ShedView(ViewContext& context, QWidget* parent)
    : QWidget(parent), m_context(context), m_have(new RowsModel({tr("Name"), tr("Kind"), tr("Pieces"), tr("Size"), tr("Price")}, this)),
      m_need(new RowsModel({tr("Piece"), tr("Size"), tr("From the shed"), tr("Which")}, this)),
      m_bands(new RowsModel({tr("Antenna"), tr("as found"), tr("by cutting"), tr("by extending")}, this)),
      m_haveTable(new Table(m_have, {0.29, 0.2, 0.1, 0.24, 0.17}, this)), m_needTable(new Table(m_need, {0.26, 0.17, 0.27, 0.3}, this)),
      m_bandTable(new Table(m_bands, {0.31, 0.17, 0.27, 0.25}, this)), m_needTitle(headingLabel({})), m_total(new QLabel),
      m_editor(new Ledger)
{
    m_haveTable->setObjectName(QStringLiteral("shedHave"));
    m_haveTable->setAccessibleName(tr("What lies in the shed"));
    m_needTable->setObjectName(QStringLiteral("shedNeed"));
    m_needTable->setAccessibleName(tr("What the antenna needs"));
    m_bandTable->setObjectName(QStringLiteral("shedBands"));
    m_bandTable->setAccessibleName(tr("Bands that each antenna reaches with it"));
    m_total->setObjectName(QStringLiteral("shedTotal"));
    m_total->setWordWrap(true);
    m_total->setProperty("role", "sentence");
    buildEditor();
    auto* upper = new QHBoxLayout;
    auto* have = new QVBoxLayout;
    have->addWidget(headingLabel(tr("In the shed")));
    have->addWidget(m_haveTable, 1);
    upper->addLayout(have, 1);
    m_editor->setFixedWidth(264);
    upper->addWidget(m_editor);
    auto* lower = new QHBoxLayout;
    auto* need = new QVBoxLayout;
    need->addWidget(m_needTitle);
    need->addWidget(m_needTable, 1);
    need->addWidget(m_total);
    auto* bands = new QVBoxLayout;
    bands->addWidget(headingLabel(tr("Bands with it, lengths by rule of thumb")));
    bands->addWidget(m_bandTable, 1);
    lower->addLayout(need, 1);
    lower->addLayout(bands, 1);
    lower->setSpacing(20);
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->addLayout(upper, 1);
    layout->addLayout(lower, 1);
    connect(m_haveTable->selectionModel(), &QItemSelectionModel::currentRowChanged, this, [this](const QModelIndex& now) {
        const auto& items = m_context.shed.shed().items;
        m_chosen = now.isValid() && now.row() < int(items.size()) ? items[std::size_t(now.row())].id : Id();
        refreshEditor();
    });
    connect(&context.shed, &ShedDesk::changed, this, &ShedView::refresh);
}

void ShedView::buildEditor()
{
    const auto add = m_editor->buttons({{tr("+ Thing"), QStringLiteral("addStock")},
                                        {tr("An example"), QStringLiteral("exampleShed")},
                                        {tr("Open …"), QStringLiteral("openShed")}});
    connect(add[0], &QPushButton::clicked, this, &ShedView::addItem);
    connect(add[1], &QPushButton::clicked, this,
            [this] { m_said->setText(m_context.shed.take(m_context.dataFolder + QStringLiteral("/demo/shed.json"))); });
    connect(add[2], &QPushButton::clicked, this, [this] {
        const QString path = QFileDialog::getOpenFileName(window(), tr("A list of the shed"), {}, tr("Lists (*.json)"));
        if (!path.isEmpty())
            m_said->setText(m_context.shed.take(path));
    });
    m_name = m_editor->name(tr("Name"), QStringLiteral("stockName"));
    connect(m_name, &NameEdit::named, this, [this](const QString& name) { change([&](StockItem& i) { i.name = name.toStdString(); }); });
    m_kind = m_editor->choice(tr("Kind"),
                              {kindWords(StockKind::Wire), kindWords(StockKind::Whip), kindWords(StockKind::Coil),
                               kindWords(StockKind::Coax), kindWords(StockKind::Pole)},
                              QStringLiteral("stockKind"));
    connect(m_kind, &QComboBox::activated, this, [this](int kind) { change([&](StockItem& i) { i.kind = StockKind(kind); }); });
    m_count = m_editor->value(tr("How many"), units::Quantity::Plain, QStringLiteral("stockCount"));
    m_count->setRange(0.0, 1000.0);
    connect(m_count, &ValueEdit::edited, this,
            [this](double count, const QString&, bool) { change([&](StockItem& i) { i.count = int(std::lround(count)); }); });
    const auto field = [&](const QString& label, units::Quantity quantity, const char* name, double highest, double StockItem::*value) {
        ValueEdit* edit = m_editor->value(label, quantity, QLatin1String(name));
        edit->setRange(0.0, highest);
        connect(edit, &ValueEdit::edited, this,
                [this, value](double to, const QString&, bool) { change([&](StockItem& i) { i.*value = to; }); });
        m_fields.push_back({edit, value});
    };
    field(tr("Shortest"), units::Quantity::Length, "stockShortest", 1e4, &StockItem::shortest);
    field(tr("Length, or longest"), units::Quantity::Length, "stockLongest", 1e5, &StockItem::longest);
    field(tr("Inductance"), units::Quantity::Inductance, "stockInductance", 1.0, &StockItem::inductance);
    field(tr("Price of another"), units::Quantity::Plain, "stockPrice", 1e6, &StockItem::price);
    m_remove = m_editor->button(tr("Take it out"), QStringLiteral("removeStock"));
    connect(m_remove, &QPushButton::clicked, this, [this] {
        m_context.shed.edit([&](Shed& shed) { std::erase_if(shed.items, [&](const StockItem& i) { return i.id == m_chosen; }); });
    });
    m_said = m_editor->note();
    m_said->setObjectName(QStringLiteral("shedSaid"));
    m_editor->finish();
}

const StockItem* ShedView::chosen() const
{
    for (const StockItem& item : m_context.shed.shed().items)
        if (item.id == m_chosen)
            return &item;
    return nullptr;
}

void ShedView::addItem()
{
    StockItem item;
    item.id = m_chosen = newId();
    item.name = tr("wire").toStdString();
    item.longest = 10.0;
    m_context.shed.edit([&](Shed& shed) { shed.items.push_back(item); });
    m_name->setFocus();
    m_name->selectAll();
}

void ShedView::change(const std::function<void(StockItem&)>& change)
{
    m_context.shed.edit([&](Shed& shed) {
        for (StockItem& item : shed.items)
            if (item.id == m_chosen)
                change(item);
    });
}

QString ShedView::kindWords(StockKind kind) const
{
    switch (kind) {
    case StockKind::Wire: return tr("wire");
    case StockKind::Whip: return tr("whip or tubes");
    case StockKind::Coil: return tr("coil");
    case StockKind::Coax: return tr("coax");
    case StockKind::Pole: return tr("pole");
    }
    return {};
}

std::vector<QStringList> ShedView::haveRows() const
{
    const Shed& shed = m_context.shed.shed();
    const auto system = m_context.system();
    std::vector<QStringList> rows;
    for (const StockItem& i : shed.items) {
        const QString size = i.kind == StockKind::Coil ? valueWords(i.inductance, units::Quantity::Inductance, system)
                             : i.shortest > 0.0 ? tr("%1 to %2").arg(lengthWords(i.shortest, system, 1), lengthWords(i.longest, system, 1))
                                                : lengthWords(i.longest, system, 1);
        rows.push_back(
            {QString::fromStdString(i.name), kindWords(i.kind), QString::number(i.count), size,
             i.price > 0.0 ? tr("%1 %2").arg(i.price, 0, 'f', 2).arg(QString::fromStdString(shed.currency)) : QStringLiteral("–")});
    }
    return rows;
}

QString ShedView::howWords(const Met& met) const
{
    const QString much = lengthWords(std::abs(met.change), m_context.system(), 1);
    switch (met.how) {
    case Met::How::AsFound: return tr("as found");
    case Met::How::Cut: return met.need.kind == StockKind::Coil ? tr("with fewer turns") : tr("cut, %1 left").arg(much);
    case Met::How::Extended: return tr("%1 to be put on").arg(much);
    case Met::How::Missing: return tr("missing");
    }
    return {};
}

std::vector<QStringList> ShedView::needRows() const
{
    std::vector<QStringList> rows;
    const AntennaModel* model = m_context.models.current();
    if (!model || !model->inventory)
        return rows;
    for (const Met& met : model->inventory->rows) {
        const auto& items = m_context.shed.shed().items;
        const auto item = std::find_if(items.begin(), items.end(), [&](const StockItem& i) { return i.id == met.item; });
        rows.push_back({coreWords(met.need.name),
                        met.need.kind == StockKind::Coil ? valueWords(met.need.inductance, units::Quantity::Inductance, m_context.system())
                                                         : lengthWords(met.need.length, m_context.system()),
                        howWords(met), item == items.end() ? QStringLiteral("–") : QString::fromStdString(item->name)});
    }
    return rows;
}

std::vector<QStringList> ShedView::bandRows() const
{
    std::vector<QStringList> rows;
    const Design& design = m_context.document.design();
    for (const Antenna& antenna : design.antennas) {
        const AntennaModel* model = m_context.models.find(antenna.id);
        QStringList words[3];
        for (const BandReach& reach : model ? model->reach : std::vector<BandReach>()) {
            const QString name = QString::fromStdString(findBand(design, reach.band)->band.name);
            if (reach.how == Met::How::AsFound || reach.how == Met::How::Cut)
                words[reach.how == Met::How::Cut] << name;
            else if (reach.how == Met::How::Extended)
                words[2] << name;
        }
        QStringList row{QString::fromStdString(antenna.name)};
        for (const QStringList& bands : words)
            row << (bands.isEmpty() ? QStringLiteral("–")
                                    : bands.join(QStringLiteral(", ")).replace(QStringLiteral(" m,"), QStringLiteral(",")));
        rows.push_back(row);
    }
    return rows;
}

void ShedView::refresh()
{
    m_context.models.lookIntoShed();
    m_have->show(haveRows());
    m_need->show(needRows());
    m_bands->show(bandRows());
    const Document& document = m_context.document;
    m_needTitle->setText(document.hasAntenna() ? tr("%1 needs").arg(document.shownName()) : tr("No antenna yet"));
    const AntennaModel* model = m_context.models.current();
    QString total;
    if (model && model->inventory) {
        const Inventory& inventory = *model->inventory;
        const QString currency = QString::fromStdString(m_context.shed.shed().currency);
        QStringList words;
        if (inventory.complete())
            words << tr("All of it is there.");
        if (inventory.price > 0.0)
            words << tr("What is missing costs %1.").arg(QStringLiteral("%1 %2").arg(inventory.price, 0, 'f', 2).arg(currency).trimmed());
        if (inventory.unpriced > 0)
            words << tr("Missing without a price: %1.").arg(inventory.unpriced);
        total = words.join(QLatin1Char(' '));
    }
    m_total->setText(total);
    if (!chosen())
        m_chosen = m_context.shed.shed().items.empty() ? Id() : m_context.shed.shed().items.front().id;
    refreshEditor();
}

void ShedView::refreshEditor()
{
    const StockItem* item = chosen();
    for (QWidget* row : std::initializer_list<QWidget*>{m_name, m_kind, m_count})
        m_editor->setRowVisible(row, item);
    m_remove->setVisible(item);
    for (const Field& field : m_fields) {
        const bool coil = item && item->kind == StockKind::Coil,
                   metre = item && (item->kind == StockKind::Wire || item->kind == StockKind::Coax);
        const bool shown = item && (field.value == &StockItem::price || (field.value == &StockItem::inductance ? coil
                                                                         : field.value == &StockItem::shortest ? !coil && !metre
                                                                                                               : !coil));
        m_editor->setRowVisible(field.edit, shown);
        if (item)
            field.edit->setValue(item->*field.value, m_context.system());
    }
    if (!m_context.shed.complaint().isEmpty())
        m_said->setText(
            tr("The list was not read: %1. It stays as it is until you change something here.").arg(m_context.shed.complaint()));
    if (!item)
        return;
    m_name->setName(QString::fromStdString(item->name));
    m_kind->setCurrentIndex(int(item->kind));
    m_count->setValue(item->count, m_context.system());
    const auto& items = m_context.shed.shed().items;
    if (const int row = int(item - items.data()); m_haveTable->currentIndex().row() != row)
        m_haveTable->selectRow(row);
}

QString ShedView::sentence() const
{
    if (m_context.shed.shed().items.empty())
        return tr(
            "Put in what you have: wire, whips, coils, poles, coax. The list is yours, in a file of its own, the same for all sites.");
    const AntennaModel* model = m_context.models.current();
    if (!model || !model->inventory)
        return tr("Add an antenna with + at the top; then this says what it needs.");
    return model->inventory->complete() ? tr("%1 can be built from what is there.").arg(m_context.document.shownName())
                                        : tr("%1 needs more than there is.").arg(m_context.document.shownName());
}

QString ShedView::tableText() const
{
    QString out;
    for (const QStringList& row : needRows())
        out += row.join(QLatin1Char('\t')) + QLatin1Char('\n');
    return out;
}

} // namespace vetchling::app
