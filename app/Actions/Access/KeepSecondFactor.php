<?php

declare(strict_types=1);

namespace App\Actions\Access;

use App\Models\RecoveryCode;
use App\Models\SecondFactor;
use App\Models\TrailAct;
use App\Models\User;
use App\Problems\Conflict;
use Illuminate\Contracts\Hashing\Hasher;
use Illuminate\Database\Connection;
use Illuminate\Validation\ValidationException;

/** Begins, confirms, asks for and ends somebody's second factor. */
final readonly class KeepSecondFactor
{
    private const RECOVERY_CODES = 10;

    /** Of one: 80 bits. */
    private const BYTES = 10;

    public function __construct(private Connection $database, private Hasher $hasher, private Trail $trail) {}

    /** @return string the secret, to be shown once */
    public function begin(User $person, #[\SensitiveParameter] string $password): string
    {
        $this->mustBe($person, $password);
        if (SecondFactor::of($person) !== null) {
            throw Conflict::because(
                'has-second-factor',
                'You have a second factor already. End it first, then begin with another authenticator.',
            );
        }
        $secret = TimeCode::newSecret();
        SecondFactor::query()->updateOrCreate(['user_id' => $person->id], ['secret' => bin2hex($secret), 'last_step' => 0]);

        return $secret;
    }

    /** @return list<string> recovery codes, to be shown once */
    public function confirm(User $person, #[\SensitiveParameter] string $code): array
    {
        return $this->database->transaction(function () use ($person, $code): array {
            $factor = SecondFactor::query()->lockForUpdate()->whereNull('confirmed_at')->find($person->id);
            $step = $factor === null ? null : TimeCode::stepOf((string) hex2bin($factor->secret), $code, now()->getTimestamp(), 0);
            if ($factor === null || $step === null) {
                throw self::isWrong();
            }
            $factor->update(['last_step' => $step, 'confirmed_at' => now()]);
            RecoveryCode::query()->where('user_id', $person->id)->delete();
            $codes = [];
            for ($nth = 0; $nth < self::RECOVERY_CODES; $nth++) {
                $codes[] = $fresh = implode('-', str_split(bin2hex(random_bytes(self::BYTES)), 5));
                RecoveryCode::query()->create(['user_id' => $person->id, 'digest' => RecoveryCode::digest($fresh)]);
            }
            $this->trail->note(TrailAct::ChangedSecondFactor, $person, 'begun');

            return $codes;
        });
    }

    public function end(User $person, #[\SensitiveParameter] string $password): void
    {
        $this->mustBe($person, $password);
        if (SecondFactor::of($person) !== null && mb_strlen($password) < PasswordLength::SHORTEST) {
            throw Conflict::because(
                'password-too-short',
                sprintf(
                    'Alone, a password has %d characters or more. Change yours first, then end the second factor.',
                    PasswordLength::SHORTEST,
                ),
            );
        }
        $this->database->transaction(function () use ($person): void {
            RecoveryCode::query()->where('user_id', $person->id)->delete();
            if (SecondFactor::query()->where('user_id', $person->id)->delete() > 0) {
                $this->trail->note(TrailAct::ChangedSecondFactor, $person, 'ended');
            }
        });
    }

    /**
     * A code of the authenticator, or one for when it is lost: each is taken once, whoever else tries the same in the same moment.
     *
     * @throws ValidationException when it is not right, or was taken before
     */
    public function take(User $person, #[\SensitiveParameter] string $code): void
    {
        $isTaken = $this->database->transaction(function () use ($person, $code): bool {
            $factor = SecondFactor::query()->lockForUpdate()->findOrFail($person->id);
            $step = TimeCode::stepOf((string) hex2bin($factor->secret), trim($code), now()->getTimestamp(), $factor->last_step);
            if ($step !== null) {
                return $factor->update(['last_step' => $step]);
            }

            return RecoveryCode::query()->where(['user_id' => $person->id, 'digest' => RecoveryCode::digest($code)])->delete() === 1;
        });
        if (! $isTaken) {
            throw self::isWrong();
        }
    }

    private function mustBe(User $person, #[\SensitiveParameter] string $password): void
    {
        if (! $this->hasher->check($password, $person->getAuthPassword())) {
            throw ValidationException::withMessages(['password' => 'This is not your password now.']);
        }
    }

    private static function isWrong(): ValidationException
    {
        return ValidationException::withMessages([
            'code' => 'This code is not right, or was used before. Wait for the next one; if it is wrong again, compare the clock of your '.
                'authenticator.',
        ]);
    }
}
