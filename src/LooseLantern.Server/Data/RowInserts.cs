using System.Collections.Concurrent;
using System.Globalization;
using System.Linq.Expressions;
using LooseLantern.Server.Tenancy;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata;
using Microsoft.EntityFrameworkCore.Storage;
using Npgsql;

namespace LooseLantern.Server.Data;

/// <summary>
/// How new rows of a type are written without being tracked: the statement, and each column's value, as the model maps
/// them. For where locks are held meanwhile, and all that is written goes in one <see cref="RoundTrip"/>.
/// </summary>
internal sealed class RowInserts
{
    private static readonly ConcurrentDictionary<Type, RowInserts> Known = [];

    // Parameters are made by the command of a provider; it keeps none of them.
    private static readonly NpgsqlCommand Maker = new();

    private readonly string _statement;
    private readonly List<(Func<object, object?> Value, RelationalTypeMapping Mapping, bool IsNullable)> _columns = [];

    private RowInserts(IEntityType type)
    {
        var table = StoreObjectIdentifier.Table(type.GetTableName()!, type.GetSchema());
        var names = new List<string>();
        foreach (var property in type.GetProperties())
        {
            names.Add($"\"{property.GetColumnName(table)}\"");
            _columns.Add((Reader(property), property.GetRelationalTypeMapping(), property.IsNullable));
        }

        var places = Enumerable.Range(1, names.Count).Select(at => "$" + at.ToString(CultureInfo.InvariantCulture));
        _statement = $"INSERT INTO \"{table.Name}\" ({string.Join(", ", names)}) VALUES ({string.Join(", ", places)})";
    }

    /// <exception cref="InvalidOperationException">The row is of another workspace than the one at hand.</exception>
    public static NpgsqlBatchCommand Command(LanternDb db, IBelongsToWorkspace row)
    {
        db.RequireAtHand(row);
        return Known
            .GetOrAdd(row.GetType(), (type, model) => new RowInserts(model.FindEntityType(type)!), db.Model)
            .Command(row);
    }

    private NpgsqlBatchCommand Command(object row)
    {
        var command = new NpgsqlBatchCommand(_statement);
        foreach (var (value, mapping, isNullable) in _columns)
        {
            var parameter = (NpgsqlParameter)mapping.CreateParameter(Maker, "", value(row), isNullable);
            // By position.
            parameter.ParameterName = "";
            command.Parameters.Add(parameter);
        }

        return command;
    }

    private static Func<object, object?> Reader(IProperty property)
    {
        var row = Expression.Parameter(typeof(object));
        var value = Expression.Property(
            Expression.Convert(row, property.DeclaringType.ClrType),
            property.PropertyInfo ?? throw new InvalidOperationException($"{property.Name} is no property of its row.")
        );
        return Expression.Lambda<Func<object, object?>>(Expression.Convert(value, typeof(object)), row).Compile();
    }
}
