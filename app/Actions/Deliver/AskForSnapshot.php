<?php

declare(strict_types=1);

namespace App\Actions\Deliver;

use App\Adapters\Storage\ChunkFolder;
use App\Jobs\TakeSnapshot;
use App\Models\Dataset;
use App\Models\Receipt;
use App\Models\ReceiptState;
use App\Models\User;
use NineTally\Core\Row\Side;

/**
 * Has the rows of a query written down by a worker; what comes of it then waits to be taken, as a file does.
 *
 * @phpstan-import-type Query from Receipt
 */
final readonly class AskForSnapshot
{
    public function __construct(private ChunkFolder $chunks) {}

    /**
     * @param  Query  $query
     * @param  string|null  $statement  in its place, when rows of a part of the groups alone are drawn
     */
    public function __invoke(Dataset $dataset, Side $side, array $query, User $person, ?string $statement = null): Receipt
    {
        $receipt = Receipt::query()->create([
            'dataset_id' => $dataset->id,
            'side' => $side,
            'file_name' => "query on {$query['source']}",
            'bytes' => 0,
            'received_bytes' => 0,
            'records_read' => 0,
            'state' => ReceiptState::Receiving,
            'query' => $query,
            'user_id' => $person->id,
        ]);
        $statement === null || $this->chunks->keepAsked($receipt, $statement);
        TakeSnapshot::dispatch($receipt->id)->afterCommit();

        return $receipt->refresh();
    }
}
