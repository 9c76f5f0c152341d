#include "app/widgets/ledger.h"

#include <QScrollArea>
#include <QScrollBar>

#include "app/widgets/choice.h"
#include "app/widgets/name_edit.h"
#include "app/widgets/value_edit.h"

#include <QFrame>
#include <QHBoxLayout>

#include <algorithm>

namespace vetchling::app {
namespace {

constexpr int nameWidth = 170; // px

QLabel* styled(QLabel* label, const char* role)
{
    label->setProperty("role", role);
    label->setWordWrap(true);
    return label;
}

/// One of them may be the sender of what is going on: it goes when that is over.
void deleteItems(QLayout* layout)
{
    while (QLayoutItem* item = layout->takeAt(0)) {
        if (QWidget* widget = item->widget()) {
            widget->blockSignals(true);
            for (QObject* child : widget->findChildren<QObject*>()) {
                child->blockSignals(true); // what is typed there is not taken any more
                child->setObjectName({});
            }
            widget->setObjectName({});
            widget->hide();
            widget->deleteLater();
        } else if (item->layout()) {
            deleteItems(item->layout());
        }
        delete item;
    }
}

} // namespace

Ledger::Ledger(QWidget* parent) : QWidget(parent), m_layout(new QVBoxLayout(this)), m_rows(m_layout)
{
    setObjectName(QStringLiteral("ledgerBody"));
    m_layout->setContentsMargins(16, 14, 16, 12);
    m_layout->setSpacing(5);
}

void Ledger::heading(const QString& words)
{
    auto* label = styled(new QLabel(words, this), "heading");
    label->setContentsMargins(0, 2, 0, 2);
    m_rows->addWidget(label);
}

QToolButton* Ledger::fold(const QString& words, const QString& objectName, bool open)
{
    endFold();
    auto* button = new QToolButton(this);
    button->setObjectName(objectName);
    button->setProperty("fold", true);
    button->setText(words);
    button->setAccessibleName(tr("%1, more").arg(words));
    button->setCheckable(true);
    button->setChecked(open);
    button->setToolButtonStyle(Qt::ToolButtonTextBesideIcon);
    button->setArrowType(open ? Qt::DownArrow : Qt::RightArrow);
    m_layout->addWidget(button);
    auto* box = new QWidget(this);
    m_rows = new QVBoxLayout(box);
    m_rows->setContentsMargins(0, 0, 0, 0);
    m_rows->setSpacing(m_layout->spacing());
    m_layout->addWidget(box);
    box->setVisible(open);
    connect(button, &QToolButton::toggled, box, [box, button](bool shown) {
        box->setVisible(shown);
        button->setArrowType(shown ? Qt::DownArrow : Qt::RightArrow);
    });
    return button;
}

QHBoxLayout* Ledger::row(const QString& label, QWidget* field)
{
    auto* line = new QHBoxLayout;
    line->setSpacing(8);
    auto* name = new QLabel(label, this);
    name->setWordWrap(true);
    name->setBuddy(field);
    line->addWidget(name, 1);
    line->addWidget(field);
    m_rows->addLayout(line);
    return line;
}

ValueEdit* Ledger::value(const QString& label, units::Quantity quantity, const QString& objectName)
{
    auto* edit = new ValueEdit(quantity, this);
    edit->setObjectName(objectName);
    edit->setAccessibleName(label);
    if (quantity == units::Quantity::Frequency)
        edit->setBandCentre(m_bandCentre);
    row(label, edit);
    const auto below = [&](const char* role, const char* suffix) {
        auto* words = styled(new QLabel(this), role);
        words->setObjectName(objectName + QLatin1String(suffix));
        words->hide();
        m_rows->addWidget(words);
        return words;
    };
    const auto show = [](QLabel* label) {
        return [label](const QString& words) {
            label->setText(words);
            label->setVisible(!words.isEmpty());
        };
    };
    auto *complaint = below("caution", "Complaint"), *question = below("question", "Question");
    connect(edit, &ValueEdit::complained, complaint, show(complaint));
    connect(edit, &ValueEdit::asked, question, show(question));
    return edit;
}

/// Beside its label as wide as its longest words, or below it where they do not fit there.
void Ledger::placeChoice(QBoxLayout* line, QComboBox* box)
{
    constexpr int usual = 148, frame = 44, all = 268, leastLabel = 90; // px
    const QFontMetrics metrics(box->font());
    int widest = 0;
    for (int i = 0; i < box->count(); ++i)
        widest = std::max(widest, metrics.horizontalAdvance(box->itemText(i)));
    const int label = std::min(metrics.horizontalAdvance(labelOf(box)->text()), leastLabel);
    const bool beside = label + line->spacing() + widest + frame <= all;
    line->setDirection(beside ? QBoxLayout::LeftToRight : QBoxLayout::TopToBottom);
    line->setStretch(0, beside ? 1 : 0);
    box->setMinimumWidth(beside ? std::max(usual, widest + frame) : usual);
}

QComboBox* Ledger::choice(const QString& label, const QStringList& words, const QString& objectName)
{
    auto* box = new Choice(this);
    box->setObjectName(objectName);
    box->setAccessibleName(label);
    box->addItems(words);
    box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    QHBoxLayout* line = row(label, box);
    const auto fit = [this, line, box] { placeChoice(line, box); };
    connect(box->model(), &QAbstractItemModel::rowsInserted, box, fit);
    connect(box->model(), &QAbstractItemModel::rowsRemoved, box, fit);
    connect(box->model(), &QAbstractItemModel::dataChanged, box, fit);
    fit();
    return box;
}

NameEdit* Ledger::name(const QString& label, const QString& objectName)
{
    auto* edit = new NameEdit(this);
    edit->setObjectName(objectName);
    edit->setAccessibleName(label);
    edit->setFixedWidth(nameWidth);
    row(label, edit);
    return edit;
}

std::vector<QPushButton*> Ledger::buttons(const std::vector<std::pair<QString, QString>>& wordsAndNames)
{
    auto* line = new QHBoxLayout;
    line->setSpacing(6);
    std::vector<QPushButton*> all;
    for (const auto& [words, objectName] : wordsAndNames) {
        auto* button = new QPushButton(words, this);
        button->setObjectName(objectName);
        button->setProperty("small", true);
        line->addWidget(button, 1);
        all.push_back(button);
    }
    m_rows->addLayout(line);
    return all;
}

QLabel* Ledger::labelOf(QWidget* field) const
{
    for (QLabel* label : findChildren<QLabel*>())
        if (label->buddy() == field)
            return label;
    return nullptr;
}

void Ledger::setRowVisible(QWidget* field, bool visible)
{
    field->setVisible(visible);
    labelOf(field)->setVisible(visible);
}

QLabel* Ledger::figure(const QString& label)
{
    auto* value = new QLabel(this);
    value->setProperty("role", "figure");
    value->setAlignment(Qt::AlignRight | Qt::AlignVCenter);
    value->setTextInteractionFlags(Qt::TextSelectableByMouse);
    row(label, value);
    return value;
}

QLabel* Ledger::note(const QString& words)
{
    auto* label = styled(new QLabel(words, this), "note");
    m_rows->addWidget(label);
    return label;
}

QLabel* Ledger::caution(const QString& words)
{
    auto* label = styled(new QLabel(words, this), "caution");
    m_rows->addWidget(label);
    return label;
}

QPushButton* Ledger::button(const QString& words, const QString& objectName, bool strong)
{
    auto* button = new QPushButton(words, this);
    button->setObjectName(objectName);
    button->setProperty("strong", strong);
    m_rows->addWidget(button);
    return button;
}

void Ledger::add(QWidget* widget) { m_rows->addWidget(widget); }

void Ledger::line()
{
    auto* frame = new QFrame(this);
    frame->setProperty("role", "line");
    frame->setFixedHeight(1);
    m_rows->addSpacing(5);
    m_rows->addWidget(frame);
    m_rows->addSpacing(3);
}

void Ledger::clear()
{
    endFold();
    deleteItems(m_layout);
}

void Ledger::finish() { m_layout->addStretch(1); }

void Ledger::bringUp(const QWidget* row)
{
    constexpr int above = 34; // px, its heading
    for (QWidget* w = parentWidget(); w; w = w->parentWidget())
        if (auto* pane = qobject_cast<QScrollArea*>(w)) {
            m_layout->activate();
            pane->verticalScrollBar()->setValue(row->mapTo(this, QPoint()).y() - above);
            return;
        }
}

} // namespace vetchling::app
