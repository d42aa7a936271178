<?php

declare(strict_types=1);

namespace App\Actions\Access;

use App\Models\User;
use Illuminate\Database\Connection;
use Illuminate\Validation\ValidationException;

/** Makes the first administrator with the one-time code that was printed on the terminal alone. */
final readonly class MakeFirstPerson
{
    private const TRIES = 5;

    public function __construct(private Connection $database) {}

    /** @throws ValidationException */
    public function __invoke(string $code, string $name, string $email, string $password): User
    {
        // A failed try must be counted, so it may not be rolled back: the code is looked at first, in a statement of its own.
        $counted = $this->database
            ->table('first_person_codes')
            ->where('expires_at', '>', now())
            ->where('tries', '<', self::TRIES)
            ->increment('tries');
        $hash = $this->database
            ->table('first_person_codes')
            ->where('expires_at', '>', now())
            ->where('tries', '<=', self::TRIES)
            ->orderByDesc('id')
            ->value('code_hash');
        if ($counted === 0 || ! is_string($hash) || ! hash_equals($hash, hash('sha256', trim($code)))) {
            throw ValidationException::withMessages([
                'code' =>
                    'The code is not right, or it is used up: it lasts one hour and five tries. Start Nine Tally again for a new one.',
            ]);
        }

        return $this->database->transaction(function () use ($name, $email, $password): User {
            if (User::query()->lockForUpdate()->exists()) {
                throw ValidationException::withMessages(['code' => 'There is a first person already. Sign in instead.']);
            }
            $this->database->table('first_person_codes')->delete();

            return User::query()->create(['name' => $name, 'email' => $email, 'password' => $password, 'is_administrator' => true]);
        });
    }
}
