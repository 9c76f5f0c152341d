#include "app/stages/trim/columns_dialog.h"

#include "app/view/words.h"
#include "app/widgets/choice.h"

#include <QHBoxLayout>
#include <QHeaderView>
#include <QVBoxLayout>

#include <algorithm>

namespace vetchling::app {
namespace {

constexpr int shownRows = 7;
constexpr char separators[] = {',', ';', '\t'};
constexpr double unitHertz[] = {1.0, 1e3, 1e6, 1e9};

QStringList columnWords()
{
    return {ColumnsDialog::tr("not used"),    ColumnsDialog::tr("frequency"),        ColumnsDialog::tr("R, ohm"),
            ColumnsDialog::tr("X, ohm"),      ColumnsDialog::tr("|Z|, ohm"),         ColumnsDialog::tr("SWR"),
            ColumnsDialog::tr("return loss"), ColumnsDialog::tr("reflection, real"), ColumnsDialog::tr("reflection, imaginary")};
}

} // namespace

ColumnsDialog::ColumnsDialog(const QString& fileName, std::string text, QWidget* parent)
    : QDialog(parent), m_text(std::move(text)), m_layout(files::guessCsv(m_text)), m_separator(new Choice(this)), m_unit(new Choice(this)),
      m_comma(new QCheckBox(tr("decimal commas"), this)), m_table(new QTableWidget(this)), m_outcome(new QLabel(this)),
      m_take(new QPushButton(tr("Take it"), this))
{
    setObjectName(QStringLiteral("columnsDialog"));
    setWindowTitle(tr("Columns of %1").arg(fileName));
    resize(680, 400);
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(18, 14, 18, 12);
    layout->addWidget(new QLabel(tr("Say what each column holds."), this));
    auto* head = new QHBoxLayout;
    m_separator->addItems({tr("commas between"), tr("semicolons between"), tr("tabs between")});
    m_separator->setObjectName(QStringLiteral("csvSeparator"));
    m_separator->setAccessibleName(tr("What stands between columns"));
    m_separator->setCurrentIndex(int(std::find(separators, separators + 3, m_layout.separator) - separators) % 3);
    m_unit->addItems({tr("Hz"), tr("kHz"), tr("MHz"), tr("GHz")});
    m_unit->setObjectName(QStringLiteral("csvUnit"));
    m_unit->setAccessibleName(tr("Unit of the frequencies"));
    m_unit->setCurrentIndex(int(std::find(unitHertz, unitHertz + 4, m_layout.hertz) - unitHertz) % 4);
    m_comma->setObjectName(QStringLiteral("csvComma"));
    m_comma->setChecked(m_layout.decimalComma);
    head->addWidget(m_separator);
    head->addWidget(new QLabel(tr("frequencies in"), this));
    head->addWidget(m_unit);
    head->addWidget(m_comma);
    head->addStretch(1);
    layout->addLayout(head);
    m_table->setObjectName(QStringLiteral("csvTable"));
    m_table->setEditTriggers(QAbstractItemView::NoEditTriggers);
    m_table->setSelectionMode(QAbstractItemView::NoSelection);
    m_table->verticalHeader()->hide();
    m_table->horizontalHeader()->hide();
    layout->addWidget(m_table, 1);
    m_outcome->setObjectName(QStringLiteral("csvOutcome"));
    m_outcome->setWordWrap(true);
    m_outcome->setMinimumHeight(36);
    layout->addWidget(m_outcome);
    auto* foot = new QHBoxLayout;
    auto* cancel = new QPushButton(tr("Leave it"), this);
    m_take->setObjectName(QStringLiteral("csvTake"));
    m_take->setProperty("strong", true);
    foot->addStretch(1);
    foot->addWidget(cancel);
    foot->addWidget(m_take);
    layout->addLayout(foot);
    connect(cancel, &QPushButton::clicked, this, &QDialog::reject);
    connect(m_take, &QPushButton::clicked, this, &QDialog::accept);
    connect(m_separator, &QComboBox::activated, this, [this](int index) {
        m_layout.separator = separators[index];
        fill();
    });
    connect(m_unit, &QComboBox::activated, this, [this](int index) {
        m_layout.hertz = unitHertz[index];
        judge();
    });
    connect(m_comma, &QCheckBox::toggled, this, [this](bool on) {
        m_layout.decimalComma = on;
        judge();
    });
    fill();
}

/// The first lines in cells, a choice over each column.
void ColumnsDialog::fill()
{
    std::vector<QStringList> rows;
    const QStringList lines = QString::fromStdString(m_text).split(QLatin1Char('\n'), Qt::SkipEmptyParts);
    for (qsizetype i = 0; i < lines.size() && int(rows.size()) < shownRows; ++i)
        rows.push_back(lines[i].trimmed().split(QLatin1Char(m_layout.separator)));
    qsizetype count = 1;
    for (const QStringList& row : rows)
        count = std::max(count, row.size());
    m_layout.columns.resize(std::size_t(count), files::Column::Unknown);
    m_columns.clear();
    m_table->clear();
    m_table->setColumnCount(int(count));
    m_table->setRowCount(int(rows.size()) + 1);
    for (int c = 0; c < int(count); ++c) {
        auto* box = new Choice(m_table);
        box->addItems(columnWords());
        box->setObjectName(QStringLiteral("csvColumn%1").arg(c));
        box->setAccessibleName(tr("Column %1").arg(c + 1));
        box->setCurrentIndex(int(m_layout.columns[std::size_t(c)]));
        connect(box, &QComboBox::activated, this, [this, c](int index) {
            m_layout.columns[std::size_t(c)] = files::Column(index);
            judge();
        });
        m_table->setCellWidget(0, c, box);
        m_table->setColumnWidth(c, 150);
        m_columns.push_back(box);
        for (std::size_t r = 0; r < rows.size(); ++r)
            m_table->setItem(int(r) + 1, c, new QTableWidgetItem(rows[r].value(c)));
    }
    m_table->setRowHeight(0, 30);
    judge();
}

void ColumnsDialog::judge()
{
    m_layout.firstRow = files::firstRowOf(m_text, m_layout);
    const auto parsed = files::parseCsv(m_text, m_layout);
    m_sweep = parsed ? std::optional(*parsed) : std::nullopt;
    m_take->setEnabled(m_sweep.has_value());
    if (!m_sweep) {
        const bool told = std::find(m_layout.columns.begin(), m_layout.columns.end(), files::Column::Frequency) != m_layout.columns.end();
        m_outcome->setText(told ? QString::fromStdString(parsed.firstFault())
                                : tr("Say which column holds the frequency, and which SWR, R and X, or return loss."));
        return;
    }
    const auto dip = m_sweep->dip();
    m_outcome->setText(tr("%1 points from %2 to %3, lowest SWR %4 at %5.")
                           .arg(m_sweep->points.size())
                           .arg(frequencyWords(m_sweep->points.front().frequency), frequencyWords(m_sweep->points.back().frequency))
                           .arg(dip->swr, 0, 'f', 2)
                           .arg(frequencyWords(dip->frequency)));
}

} // namespace vetchling::app
