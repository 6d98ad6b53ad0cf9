using System.Numerics;

namespace LooseLantern.Core.LineUps;

/// <summary>The assignment problem: a column of its own for each row, with the least sum.</summary>
internal static class LeastCost
{
    /// <summary>
    /// Solves it by shortest augmenting paths over potentials (the Hungarian method; Kuhn 1955, Munkres 1957) in
    /// O(rows² × columns).
    /// </summary>
    /// <param name="costs">By row and column; null where the two do not go together.</param>
    /// <returns>The column of each row, or null where there is no complete assignment.</returns>
    public static int[]? Assign(BigInteger?[,] costs)
    {
        var (rows, columns) = (costs.GetLength(0), costs.GetLength(1));
        if (columns < rows)
            return null;

        // What does not go together costs more than everything else could in sum, so it is chosen only where there is
        // no other way.
        var largest = costs
            .Cast<BigInteger?>()
            .Aggregate(BigInteger.One, (most, cost) => BigInteger.Max(most, BigInteger.Abs(cost ?? 0)));
        var barred = largest * 2 * (rows + 1);
        BigInteger Cost(int row, int column) => costs[row - 1, column - 1] ?? barred;

        // Rows and columns count from 1; column 0 stands for the row that is being placed.
        var (rowPotential, columnPotential) = (new BigInteger[rows + 1], new BigInteger[columns + 1]);
        var rowOf = new int[columns + 1];
        for (var row = 1; row <= rows; row++)
        {
            rowOf[0] = row;
            var column = 0;
            var shortest = new BigInteger?[columns + 1];
            var cameFrom = new int[columns + 1];
            var done = new bool[columns + 1];
            do
            {
                done[column] = true;
                var next = 0;
                BigInteger? step = null;
                for (var other = 1; other <= columns; other++)
                {
                    if (done[other])
                        continue;
                    var reduced = Cost(rowOf[column], other) - rowPotential[rowOf[column]] - columnPotential[other];
                    if (shortest[other] is not { } known || reduced < known)
                        (shortest[other], cameFrom[other]) = (reduced, column);
                    if (step is null || shortest[other] < step)
                        (step, next) = (shortest[other], other);
                }

                for (var other = 0; other <= columns; other++)
                {
                    if (done[other])
                    {
                        rowPotential[rowOf[other]] += step!.Value;
                        columnPotential[other] -= step.Value;
                    }
                    else if (shortest[other] is { } known)
                    {
                        shortest[other] = known - step!.Value;
                    }
                }

                column = next;
            } while (rowOf[column] != 0);

            for (; column != 0; column = cameFrom[column])
                rowOf[column] = rowOf[cameFrom[column]];
        }

        var assigned = new int[rows];
        for (var column = 1; column <= columns; column++)
        {
            if (rowOf[column] != 0)
                assigned[rowOf[column] - 1] = column - 1;
        }

        return assigned.Where((column, row) => costs[row, column] is null).Any() ? null : assigned;
    }
}
