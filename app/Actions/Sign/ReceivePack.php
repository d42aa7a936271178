<?php

declare(strict_types=1);

namespace App\Actions\Sign;

use App\Jobs\InspectPack;
use App\Models\PackInspection;
use App\Problems\Conflict;
use App\Problems\NoRoom;
use Illuminate\Database\Connection;

/** Takes a pack in, chunk by chunk, to be checked and then forgotten. */
final readonly class ReceivePack
{
    public function __construct(private Connection $database, private string $folder) {}

    /** @throws Conflict when the chunk does not begin where the last one ended, or more comes than was announced */
    public function __invoke(PackInspection $inspection, int $offset, string $chunk): PackInspection
    {
        $inspection = $this->database->transaction(function () use ($inspection, $offset, $chunk): PackInspection {
            $held = PackInspection::query()->lockForUpdate()->findOrFail($inspection->id);
            if ($held->state !== 'receiving' || $offset !== $held->received_bytes || $offset + strlen($chunk) > $held->bytes) {
                throw Conflict::because(
                    'chunk-out-of-place',
                    "The next chunk begins at byte {$held->received_bytes} of {$held->bytes}. Go on from there.",
                );
            }
            $file = @fopen($this->path($held), 'cb');
            if ($file === false || fseek($file, $offset) !== 0 || @fwrite($file, $chunk) !== strlen($chunk) || ! fclose($file)) {
                throw NoRoom::writing();
            }
            chmod($this->path($held), 0600);
            $held->received_bytes += strlen($chunk);
            $held->state = $held->received_bytes === $held->bytes ? 'checking' : 'receiving';
            $held->save();

            return $held;
        });
        if ($inspection->state === 'checking') {
            InspectPack::dispatch($inspection->id);
            $inspection->refresh();
        }

        return $inspection;
    }

    /** What a person did not send to its end is forgotten when they begin anew. */
    public function begin(int $personId, string $name, int $bytes, ?string $key): PackInspection
    {
        foreach (PackInspection::query()->where(['user_id' => $personId, 'state' => 'receiving'])->get() as $unfinished) {
            @unlink($this->path($unfinished));
            $unfinished->delete();
        }

        return PackInspection::query()->create([
            'user_id' => $personId,
            'file_name' => $name,
            'bytes' => $bytes,
            'received_bytes' => 0,
            'key' => $key,
            'state' => 'receiving',
        ]);
    }

    public function path(PackInspection $inspection): string
    {
        return "{$this->folder}/pack-{$inspection->id}";
    }
}
