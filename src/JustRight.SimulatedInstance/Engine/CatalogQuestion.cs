using System.Globalization;
using System.Text;
using Microsoft.SqlServer.TransactSql.ScriptDom;

namespace JustRight.SimulatedInstance.Engine;

/// <summary>
/// Puts a parsed question about the catalog views into the words of the store: the part of the language that our connector and
/// scripts use. Texts and numbers go apart as values. What is outside that part is refused, never guessed at.
/// </summary>
/// <param name="sees">Which rows of a view the session may see: the view and its database, to a condition on the row; throws
/// when it may not ask.</param>
internal sealed class CatalogQuestion(Func<string, string?, string> sees)
{
    private readonly StringBuilder _text = new();
    private readonly List<object?> _values = [];

    /// <summary>The question in the store's words.</summary>
    public string Text => _text.ToString();

    /// <summary>Its values in order.</summary>
    public object?[] Values => [.. _values];

    /// <summary>A whole question.</summary>
    public CatalogQuestion Of(SelectStatement select)
    {
        Expression(select.QueryExpression);
        return this;
    }

    /// <summary>Whether a condition holds: one row with 1 or 0.</summary>
    public CatalogQuestion Of(BooleanExpression condition)
    {
        _text.Append("SELECT CASE WHEN ");
        Condition(condition);
        _text.Append(" THEN 1 ELSE 0 END");
        return this;
    }

    private void Expression(QueryExpression query)
    {
        switch (query)
        {
            case BinaryQueryExpression { BinaryQueryExpressionType: BinaryQueryExpressionType.Union, All: true } union:
                Expression(union.FirstQueryExpression);
                _text.Append(" UNION ALL ");
                Expression(union.SecondQueryExpression);
                break;
            case QuerySpecification { GroupByClause: null, HavingClause: null, TopRowFilter: null } select:
                Select(select);
                break;
            default:
                throw NotKnown(query);
        }

        if (query.OrderByClause is not { } order) return;
        _text.Append(" ORDER BY ");
        Each(order.OrderByElements, o => Value(o.Expression));
    }

    private void Select(QuerySpecification select)
    {
        _text.Append("SELECT ");
        Each(select.SelectElements, element =>
        {
            if (element is not SelectScalarExpression scalar) throw NotKnown(element);
            Value(scalar.Expression);
            // what is no column has no name
            _text.Append(" AS ")
                .Append(Quoted(scalar.ColumnName?.Value
                    ?? (scalar.Expression as ColumnReferenceExpression)?.MultiPartIdentifier.Identifiers[^1].Value ?? ""));
        });
        if (select.FromClause is { } from)
        {
            _text.Append(" FROM ");
            Each(from.TableReferences, Table);
        }

        if (select.WhereClause is not { } where) return;
        _text.Append(" WHERE ");
        Condition(where.SearchCondition);
    }

    private void Table(TableReference table)
    {
        switch (table)
        {
            case NamedTableReference { SchemaObject: var name, Alias: { } alias } when string.Equals(
                name.SchemaIdentifier?.Value, "sys", StringComparison.OrdinalIgnoreCase):
                _text.Append("(SELECT * FROM ").Append(Quoted(name.BaseIdentifier.Value)).Append(" WHERE ")
                    .Append(sees(name.BaseIdentifier.Value, name.DatabaseIdentifier?.Value)).Append(") AS ")
                    .Append(Quoted(alias.Value));
                break;
            case NamedTableReference { SchemaObject: var name, Alias: { } alias } when IsOfAgent(name):
                _text.Append("(SELECT * FROM ").Append(Quoted(name.BaseIdentifier.Value)).Append(" WHERE ")
                    .Append(sees(name.BaseIdentifier.Value, name.DatabaseIdentifier.Value)).Append(") AS ")
                    .Append(Quoted(alias.Value));
                break;
            case QualifiedJoin { QualifiedJoinType: QualifiedJoinType.Inner or QualifiedJoinType.LeftOuter } join:
                Table(join.FirstTableReference);
                _text.Append(join.QualifiedJoinType == QualifiedJoinType.Inner ? " JOIN " : " LEFT JOIN ");
                Table(join.SecondTableReference);
                _text.Append(" ON ");
                Condition(join.SearchCondition);
                break;
            default:
                throw NotKnown(table);
        }
    }

    /// <summary>Tables of jobs, which are asked for by their whole name.</summary>
    private static bool IsOfAgent(SchemaObjectName name) =>
        string.Equals(name.DatabaseIdentifier?.Value, Catalog.Jobs, StringComparison.OrdinalIgnoreCase)
        && string.Equals(name.SchemaIdentifier?.Value, "dbo", StringComparison.OrdinalIgnoreCase)
        && Catalog.AgentTables.Contains(name.BaseIdentifier.Value, StringComparer.OrdinalIgnoreCase);

    private void Condition(BooleanExpression condition)
    {
        switch (condition)
        {
            case BooleanParenthesisExpression inner:
                _text.Append('(');
                Condition(inner.Expression);
                _text.Append(')');
                break;
            case BooleanNotExpression not:
                _text.Append("NOT (");
                Condition(not.Expression);
                _text.Append(')');
                break;
            case BooleanBinaryExpression both:
                Condition(both.FirstExpression);
                _text.Append(both.BinaryExpressionType == BooleanBinaryExpressionType.And ? " AND " : " OR ");
                Condition(both.SecondExpression);
                break;
            case BooleanComparisonExpression compared:
                Value(compared.FirstExpression);
                _text.Append(compared.ComparisonType switch
                {
                    BooleanComparisonType.Equals => " = ",
                    BooleanComparisonType.NotEqualToBrackets or BooleanComparisonType.NotEqualToExclamation => " <> ",
                    BooleanComparisonType.GreaterThan => " > ",
                    BooleanComparisonType.LessThan => " < ",
                    BooleanComparisonType.GreaterThanOrEqualTo => " >= ",
                    BooleanComparisonType.LessThanOrEqualTo => " <= ",
                    _ => throw NotKnown(compared),
                });
                Value(compared.SecondExpression);
                break;
            case BooleanIsNullExpression isNull:
                Value(isNull.Expression);
                _text.Append(isNull.IsNot ? " IS NOT NULL" : " IS NULL");
                break;
            case InPredicate { Subquery: null } any:
                Value(any.Expression);
                _text.Append(any.NotDefined ? " NOT IN (" : " IN (");
                Each(any.Values, Value);
                _text.Append(')');
                break;
            case ExistsPredicate exists:
                _text.Append("EXISTS (");
                Expression(exists.Subquery.QueryExpression);
                _text.Append(')');
                break;
            default:
                throw NotKnown(condition);
        }
    }

    private void Value(ScalarExpression value)
    {
        switch (value)
        {
            case ColumnReferenceExpression { MultiPartIdentifier.Identifiers: var names }:
                _text.AppendJoin('.', names.Select(n => Quoted(n.Value)));
                break;
            case StringLiteral text:
                Apart(text.Value);
                break;
            case IntegerLiteral number:
                Apart(int.Parse(number.Value, CultureInfo.InvariantCulture));
                break;
            case UnaryExpression { UnaryExpressionType: UnaryExpressionType.Negative, Expression: IntegerLiteral number }:
                Apart(-int.Parse(number.Value, CultureInfo.InvariantCulture));
                break;
            case BinaryLiteral bytes:
                Apart(Convert.FromHexString(bytes.Value.AsSpan(2)));
                break;
            case NullLiteral:
                _text.Append("NULL");
                break;
            case CastCall { DataType: SqlDataTypeReference { SqlDataTypeOption: var to } } cast
                when to is SqlDataTypeOption.NVarChar or SqlDataTypeOption.Int:
                Value(cast.Parameter); // what is asked this way is of that kind already
                break;
            case FunctionCall call:
                _text.Append("fn_").Append(call.FunctionName.Value.ToUpperInvariant()).Append('(');
                Each(call.Parameters, Value);
                _text.Append(')');
                break;
            case SearchedCaseExpression choice:
                _text.Append("CASE");
                foreach (var when in choice.WhenClauses)
                {
                    _text.Append(" WHEN ");
                    Condition(when.WhenExpression);
                    _text.Append(" THEN ");
                    Value(when.ThenExpression);
                }

                if (choice.ElseExpression is { } otherwise)
                {
                    _text.Append(" ELSE ");
                    Value(otherwise);
                }

                _text.Append(" END");
                break;
            default:
                throw NotKnown(value);
        }
    }

    private void Apart(object value)
    {
        _values.Add(value);
        _text.Append('$').Append(_values.Count.ToString(CultureInfo.InvariantCulture));
    }

    private void Each<T>(IList<T> all, Action<T> write)
    {
        for (var i = 0; i < all.Count; i++)
        {
            if (i > 0) _text.Append(", ");
            write(all[i]);
        }
    }

    // in these quotes an unknown name is an error and never a text
    private static string Quoted(string name) => $"`{name.Replace("`", "``", StringComparison.Ordinal)}`";

    private static EngineException NotKnown(TSqlFragment fragment) =>
        EngineException.NotSimulated($"a question with a {fragment.GetType().Name}");
}
