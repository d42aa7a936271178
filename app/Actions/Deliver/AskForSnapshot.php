<?php

declare(strict_types=1);

namespace App\Actions\Deliver;

use App\Jobs\TakeSnapshot;
use App\Models\Dataset;
use App\Models\Receipt;
use App\Models\ReceiptState;
use App\Models\User;
use NineTally\Core\Row\Side;

/** Has the rows of a query written down by a worker; what comes of it then waits to be taken, as a file does. */
final readonly class AskForSnapshot
{
    /** @param array<string, string> $values of the names in it */
    public function __invoke(Dataset $dataset, Side $side, string $source, string $sql, User $person, array $values = []): Receipt
    {
        $receipt = Receipt::query()->create([
            'dataset_id' => $dataset->id,
            'side' => $side,
            'file_name' => "query on {$source}",
            'bytes' => 0,
            'received_bytes' => 0,
            'records_read' => 0,
            'state' => ReceiptState::Receiving,
            'query' => ['source' => $source, 'sql' => $sql] + ($values === [] ? [] : ['values' => $values]),
            'user_id' => $person->id,
        ]);
        TakeSnapshot::dispatch($receipt->id);

        return $receipt->refresh();
    }
}
