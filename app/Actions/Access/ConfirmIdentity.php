<?php

declare(strict_types=1);

namespace App\Actions\Access;

use App\Models\SecondFactor;
use App\Models\TrailAct;
use App\Models\User;
use App\Problems\SecondFactorNeeded;
use Illuminate\Contracts\Hashing\Hasher;
use Illuminate\Validation\ValidationException;

/** Asks somebody who is signed in once more who they are, before they do what cannot be taken back. Who guesses waits longer each time. */
final readonly class ConfirmIdentity
{
    public function __construct(
        private SignInDelays $delays,
        private Hasher $hasher,
        private KeepSecondFactor $secondFactor,
        private Trail $trail,
    ) {}

    /**
     * @param  string  $code  of the second factor; '' where none was given
     * @return string how it was shown
     *
     * @throws ValidationException when one of them is not right
     * @throws \App\Problems\TooManyTries
     * @throws SecondFactorNeeded when the password is right, and the person has a second factor
     */
    public function __invoke(User $person, #[\SensitiveParameter] string $password, #[\SensitiveParameter] string $code): string
    {
        $counted = ['account' => mb_strtolower($person->email)];
        $this->delays->mayTry($counted);
        if (! $this->hasher->check($password, $person->getAuthPassword())) {
            $this->trail->note(TrailAct::Failed, $person, 'wrong password, asked again');
            throw ValidationException::withMessages(['password' => 'This is not your password.']);
        }
        $hasFactor = SecondFactor::of($person) !== null;
        if ($hasFactor) {
            if ($code === '') {
                throw new SecondFactorNeeded;
            }
            $this->secondFactor->take($person, $code);
        }
        $this->delays->wasRight($counted);

        return $hasFactor ? 'password and code of the second factor' : 'password';
    }
}
