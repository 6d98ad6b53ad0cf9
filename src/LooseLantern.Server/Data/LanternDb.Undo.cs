using LooseLantern.Server.Data.Model;
using Microsoft.EntityFrameworkCore;

namespace LooseLantern.Server.Data;

/// <summary>What can be taken back, and the rows it changed.</summary>
public sealed partial class LanternDb
{
    public DbSet<UndoAct> UndoActs => Set<UndoAct>();

    public DbSet<UndoRow> UndoRows => Set<UndoRow>();

    /// <summary>
    /// What is done from now on can be taken back as one; null where it can't. Each transaction that begins meanwhile
    /// keeps what it changes (<see cref="UndoTransactions"/>).
    /// </summary>
    public UndoAct? Act { get; private set; }

    public void Begin(UndoAct act)
    {
        Act = act;
        // What is saved by one statement would need no transaction else, and keep nothing.
        Database.AutoTransactionBehavior = AutoTransactionBehavior.Always;
    }

    /// <summary>Says what the act at hand does as a whole, within its transaction.</summary>
    public async Task SayWholeAsync(string whole, CancellationToken ct)
    {
        if (Act is { } act)
            await UndoActs
                .Where(row => row.Id == act.Id)
                .ExecuteUpdateAsync(set => set.SetProperty(row => row.Whole, whole), ct);
    }

    private void UndoModel(ModelBuilder builder)
    {
        Filter<UndoAct>(builder).ToTable("undo_acts").HasIndex(row => new { row.PersonId, row.Until });
        builder.Entity<UndoAct>().HasOne<Person>().WithMany().HasForeignKey(row => row.PersonId);
        Filter<UndoRow>(builder).ToTable("undo_rows");
        builder.Entity<UndoRow>(row =>
        {
            row.HasOne<UndoAct>().WithMany().HasForeignKey(one => one.ActId);
            row.Property(one => one.Id).UseIdentityAlwaysColumn();
            row.Property(one => one.Key).HasColumnType("jsonb");
            row.Property(one => one.Before).HasColumnType("jsonb");
            row.Property(one => one.After).HasColumnType("jsonb");
        });
    }
}
