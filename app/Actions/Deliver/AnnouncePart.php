<?php

declare(strict_types=1);

namespace App\Actions\Deliver;

use App\Adapters\Storage\Room;
use App\Models\Dataset;
use App\Models\Receipt;
use App\Models\ReceiptState;
use App\Models\User;
use NineTally\Core\Intake\UnreadableFile;
use NineTally\Core\Row\Side;

/** Says that a file is coming. Its chunks follow, and may follow after a break. */
final readonly class AnnouncePart
{
    public function __construct(private Room $room) {}

    /**
     * @throws UnreadableFile when the file is empty
     * @throws \App\Problems\NoRoom when the disk cannot take it
     */
    public function __invoke(Dataset $dataset, Side $side, string $fileName, int $bytes, User $person): Receipt
    {
        if ($bytes === 0) {
            throw UnreadableFile::isEmpty($fileName);
        }

        $this->room->mustHave($bytes);

        return Receipt::query()->create([
            'dataset_id' => $dataset->id,
            'side' => $side,
            'file_name' => $fileName,
            'bytes' => $bytes,
            'received_bytes' => 0,
            'records_read' => 0,
            'state' => ReceiptState::Receiving,
            'user_id' => $person->id,
        ]);
    }
}
