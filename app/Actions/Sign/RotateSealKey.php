<?php

declare(strict_types=1);

namespace App\Actions\Sign;

use App\Actions\Access\ConfirmIdentity;
use App\Actions\Access\Trail;
use App\Adapters\Seal\SealKeys;
use App\Models\KeyRotation;
use App\Models\SealKeyEntry;
use App\Models\TrailAct;
use App\Models\User;
use Illuminate\Database\Connection;
use NineTally\Core\Seal\HandOver;

/** Gives the installation another key to seal with. The old one hands over to it and is gone; what it sealed stays as good as it was. */
final readonly class RotateSealKey
{
    public function __construct(
        private Connection $database,
        private SealKeys $keys,
        private ConfirmIdentity $confirm,
        private Trail $trail,
    ) {}

    /**
     * @param  bool  $isCompromised  whether somebody else may have the old key: then nothing that it says can be believed any more
     *
     * @throws \Illuminate\Validation\ValidationException when the password or the code is not right
     */
    public function __invoke(
        User $person,
        string $reason,
        bool $isCompromised,
        #[\SensitiveParameter]
        string $password,
        #[\SensitiveParameter]
        string $code,
    ): KeyRotation {
        ($this->confirm)($person, $password, $code);
        $rotation = $this->database->transaction(function () use ($person, $reason, $isCompromised): KeyRotation {
            // Nobody seals meanwhile.
            $this->database->select('SELECT pg_advisory_xact_lock(3, 1)');
            $old = $this->keys->key();
            $new = $this->keys->prepareNext();
            foreach ([$old, $new] as $key) {
                SealKeyEntry::query()->insertOrIgnore([
                    'fingerprint' => $key->fingerprint(), 'pem' => $key->publicPem(), 'created_at' => now(),
                ]);
            }
            $handOver = $isCompromised ? null : HandOver::of($old, $new, now()->toImmutable());
            $rotation = KeyRotation::query()->create([
                'from_fingerprint' => $old->fingerprint(),
                'to_fingerprint' => $new->fingerprint(),
                'statement' => $handOver?->statement,
                'signature' => $handOver === null ? null : base64_encode($handOver->signature),
                'reason' => $reason,
                'user_id' => $person->id,
            ]);
            $this->trail->note(TrailAct::RotatedKey, $person, "from {$old->fingerprint()} to {$new->fingerprint()}: {$reason}");

            return $rotation;
        });
        $this->keys->takeNext();

        return $rotation;
    }
}
